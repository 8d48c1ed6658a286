export { bases, shareTrouble, sharesOf, weightOf, type Basis, type Goods } from './shares.ts';
