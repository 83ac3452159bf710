import { aimNames, ImageFormatSchema } from '@inkwell/core/model';
import { Command } from 'commander';
import { shippedPlaces } from '../../standins/shippedSheets.ts';
import { codes } from '../codes.ts';
import type { Context, Run } from '../context.ts';

/** What the script itself does; the program has these beside the commands that end by themselves. */
const others = ['demo', 'check', 'serve', 'worker', 'bench', 'faults', 'help'];

/** `completion` */
export const completionCommand = (context: Context, run: Run): Command => {
  const command = new Command('completion')
    .description('Prints what makes bash complete commands, options and places.')
    .addHelpText('after', '\nExample:\n  source <(./inkwell completion)')
    .action(() =>
      run(async () => {
        context.say(completionScript(command.parent?.commands ?? []));
        return codes.right;
      }),
    );
  return command;
};

const optionsOf = (command: Command): string[] => command.options.flatMap(({ long }) => long ?? []);

/** A line of the script for each command, with what may follow it. */
function wordsFor(command: Command): string[] {
  const own = [...command.commands.map((one) => one.name()), ...optionsOf(command), '--help'];
  return [
    `    ${command.name()}) words="${own.join(' ')}" ;;`,
    ...command.commands.map(
      (one) => `    ${command.name()}/${one.name()}) words="${[...optionsOf(one), '--help'].join(' ')}" ;;`,
    ),
  ];
}

/** A script for bash. The places that ship with the program are in it; those of one's own are asked for by name. */
function completionScript(commands: readonly Command[]): string {
  const names = [...others, ...commands.map((one) => one.name())].join(' ');
  return `# Completion of ./inkwell for bash: source <(./inkwell completion)
_inkwell_words() {
  local word=\${COMP_WORDS[COMP_CWORD]} before=\${COMP_WORDS[COMP_CWORD-1]} command=\${COMP_WORDS[1]} words=''
  local places="${[...shippedPlaces().keys()].join(' ')}"
  case "$before" in
    --place) COMPREPLY=($(compgen -W "$places" -- "$word")); return ;;
    --places) # those before the last comma stay as they are
      local kept=''
      case "$word" in *,*) kept=\${word%,*}, ;; esac
      COMPREPLY=($(compgen -P "$kept" -W "$places" -- "\${word##*,}")); compopt -o nospace; return ;;
    --aim) COMPREPLY=($(compgen -W '${aimNames.join(' ')}' -- "$word")); return ;;
    --format) COMPREPLY=($(compgen -W '${ImageFormatSchema.options.join(' ')}' -- "$word")); return ;;
    --sheets) COMPREPLY=($(compgen -W 'here file' -- "$word")); return ;;
    --out|--series) COMPREPLY=($(compgen -f -- "$word")); return ;;
  esac
  if [ "$COMP_CWORD" = 1 ]; then COMPREPLY=($(compgen -W "${names}" -- "$word")); return; fi
  if [ "$COMP_CWORD" -gt 2 ] && [[ "$command" =~ ^(book|project)$ ]]; then command=$command/\${COMP_WORDS[2]}; fi
  case "$command" in
${commands.flatMap(wordsFor).join('\n')}
  esac
  COMPREPLY=($(compgen -W "$words" -- "$word") $(compgen -f -- "$word"))
}
complete -o filenames -F _inkwell_words inkwell ./inkwell`;
}
