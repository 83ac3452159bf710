import { EmailSchema, RoleSchema, roles } from '@inkwell/core/model';
import { Argument, Command, Option } from 'commander';
import { type Code, codes, Misuse } from '../codes.ts';
import { type Context, type Run, settingsOf, withDoor } from '../context.ts';

/** `account list`, `account invite EMAIL`, `account reset EMAIL` */
export function accountCommand(context: Context, run: Run): Command {
  const account = new Command('account').description(
    'Accounts, from the machine itself: for the day when nobody gets in by the front.',
  );
  account
    .command('list')
    .description('Lists everybody with an account.')
    .addHelpText('after', '\nExample:\n  ./inkwell account list')
    .action(() => run(() => list(context)));
  account
    .command('invite')
    .description('Prints a link by which somebody makes an account within seven days.')
    .argument('<address>', 'the e-mail address with which they sign in')
    .addOption(new Option('--role <role>', 'what they may do').choices(roles).default('editor'))
    .addHelpText('after', '\nExample:\n  ./inkwell account invite ida@saltmarsh.example --role owner')
    .action((address: string, { role }: { role: string }) => run(() => invite(context, address, role)));
  account
    .command('reset')
    .description('Prints a link by which somebody chooses a new password within two hours.')
    .addArgument(new Argument('<address>', 'the e-mail address with which they sign in'))
    .addHelpText(
      'after',
      `
Who has lost the authenticator and its recovery codes signs in without them after --without-factor.

Examples:
  ./inkwell account reset runa@saltmarsh.example
  ./inkwell account reset runa@saltmarsh.example --without-factor`,
    )
    .option('--without-factor', 'asks for no second factor any more', false)
    .action((address: string, { withoutFactor }: { withoutFactor: boolean }) =>
      run(() => reset(context, address, withoutFactor)),
    );
  return account;
}

/** Where people reach the program, as far as the settings say. */
const originOf = (context: Context): string => {
  const { INKWELL_ORIGIN: origin, PORT } = settingsOf(context);
  return origin === undefined ? `http://127.0.0.1:${PORT}` : new URL(origin).origin;
};

function emailIn(address: string): string {
  const email = EmailSchema.safeParse(address);
  if (!email.success) throw new Misuse(`${address}: ${email.error.issues[0]?.message ?? ''}`);
  return email.data;
}

const list = (context: Context): Promise<Code> =>
  withDoor(context, async ({ whole }) => {
    const { listPeople } = await import('../../store/access/people.ts');
    const { workspacesOf } = await import('../../store/access/workspaces.ts');
    const people = await listPeople(whole);
    for (const { id, name, email, hasSecondFactor } of people) {
      const roles = (await workspacesOf(whole, id)).map((one) => `${one.role} of ${one.name}`).join(', ');
      context.say(`${email}  ${roles}  ${name}${hasSecondFactor ? ', with a second factor' : ''}`);
    }
    if (people.length === 0) context.say('Nobody has an account.');
    return codes.right;
  });

const invite = (context: Context, address: string, role: string): Promise<Code> =>
  withDoor(context, async ({ whole }, workspaceId) => {
    const { inviteByHand } = await import('../../tasks/access/invitations.ts');
    const asked = { email: emailIn(address), role: RoleSchema.parse(role) };
    context.say(await inviteByHand(whole, workspaceId, asked, originOf(context)));
    return codes.right;
  });

const reset = (context: Context, address: string, withoutFactor: boolean): Promise<Code> =>
  withDoor(context, async ({ whole }) => {
    const { resetByHand } = await import('../../tasks/access/newPassword.ts');
    const link = await resetByHand(whole, emailIn(address), withoutFactor, originOf(context));
    if (link === null) throw new Misuse(`Nobody has an account with ${address}. ./inkwell account list says who has.`);
    context.say(link);
    return codes.right;
  });
