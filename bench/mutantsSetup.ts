import fc from 'fast-check';

// A mutant is noticed by the first example that fails; to look for a smaller one takes many times as long.
fc.configureGlobal({ endOnFailure: true });
