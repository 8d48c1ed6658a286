/** Who may overrule a finding, from nobody to all who work on bills. */
export const overrulers = ['nobody', 'controllers', 'approvers', 'clerks'] as const;
export type Overrulers = (typeof overrulers)[number];

/** The roles that may: controllers may what approvers may, and these what clerks may. */
const roles: Record<Overrulers, readonly string[]> = {
  nobody: [],
  controllers: ['controller'],
  approvers: ['controller', 'approver'],
  clerks: ['controller', 'approver', 'clerk'],
};

/** Whether somebody with these roles may overrule what is overruled by these people. */
export const mayOverrule = (held: readonly string[], by: Overrulers): boolean => roles[by].some((role) => held.includes(role));
