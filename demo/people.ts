/** The invented people of the demo, their roles by company code, and the one password they share. */
export const demoPassword = 'glasshouse-demo';

export interface DemoPerson {
  name: string;
  email: string;
  title: string;
  roles: Record<string, string[]>;
}

export const people: DemoPerson[] = [
  {
    name: 'Ines Okafor',
    email: 'ines@marrowby.example',
    title: 'Accounts payable clerk',
    roles: { MBG: ['clerk'], MNT: ['clerk'], JMB: ['clerk'] },
  },
  { name: 'Tobias Fenn', email: 'tobias@marrowby.example', title: 'Accounts payable clerk', roles: { MBG: ['clerk'] } },
  {
    name: 'Marguerite Sable',
    email: 'marguerite@marrowby.example',
    title: 'Head of estates, approver',
    roles: { MBG: ['approver'], JMB: ['approver'] },
  },
  {
    name: 'Rufus Pell',
    email: 'rufus@marrowby.example',
    title: 'Nursery manager, approver',
    roles: { MNT: ['approver'], MBG: ['approver'] },
  },
  {
    name: 'Halina Voss',
    email: 'halina@marrowby.example',
    title: 'Financial controller',
    roles: { MBG: ['controller'], MNT: ['controller'], JMB: ['controller'] },
  },
  {
    name: 'Kit Arden',
    email: 'kit@marrowby.example',
    title: 'Administrator',
    roles: { MBG: ['administrator'], MNT: ['administrator'], JMB: ['administrator'] },
  },
];

export const signInLine = `Sign in with one click as ${people.map((p) => p.name).join(', ')}, or with any of their addresses and the password ${demoPassword}`;
