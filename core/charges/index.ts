export { bases, shareTrouble, sharesOf, type Basis, type Goods } from './shares.ts';
