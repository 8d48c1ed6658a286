export { prove, productOf, type Proof, type ProofBill, type ProofLine, type Repair } from './proof.ts';
