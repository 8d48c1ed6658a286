import { dimensionFields } from '@ledgerline/core/bills';
import { refusedBy } from '../db/client.ts';
import { Refusal } from '../http/problems.ts';

const ofOthers = 'A supplier, account, cost centre, tax code or dimension does not belong to this company. Choose it again.';
/** What a constraint of the database means for the person in front of the screen. The service says it first where it can. */
const sentences: Record<string, readonly [status: 403 | 409 | 422, sentence: string]> = {
  bill_number_once: [409, 'This invoice number from this supplier is already on another bill.'],
  bill_not_own_approval: [403, 'You worked on this bill yourself. Somebody else has to approve it.'],
  bill_sent_stays: [409, 'This bill has been sent on and cannot be changed here.'],
  bill_goes_its_way: [409, 'This bill has moved on meanwhile. Load it again.'],
  bill_document_once: [409, 'Its page has a new bill meanwhile. Open that one instead.'],
  bill_supplier_of_company: [422, ofOthers],
  bill_line_account: [422, ofOthers],
  bill_line_cost_centre: [422, ofOthers],
  bill_line_tax_code: [422, ofOthers],
  ...Object.fromEntries(
    ['bill_line', 'journal_line', 'coding_rule', 'supplier', 'usual_coding', 'order_line', 'charge_share'].flatMap((table) =>
      [...dimensionFields, 'dimensions_fit'].map((of) => [`${table}_${of}`, [422, ofOthers] as const]),
    ),
  ),
  ...Object.fromEntries(
    [
      'usual_coding_account',
      'usual_coding_rounding_account',
      'usual_coding_accrual_account',
      'charge_share_account',
      'charge_share_cost_centre',
      'usual_coding_cost_centre',
      'usual_coding_tax_code',
      'item_account',
      'item_tax_code',
      'purchase_order_supplier',
      'order_line_item',
      'order_line_account',
      'order_line_cost_centre',
      'order_line_tax_code',
    ].map((name) => [name, [422, ofOthers] as const]),
  ),
  purchase_order_number: [409, 'There is an order of this number already.'],
  order_line_weighs: [422, 'A weight and a volume are zero or more.'],
  charge_of_bill: [422, ofOthers],
  order_line_figures: [422, 'A quantity is above zero, a price zero or more.'],
  receipt_line_order_line: [409, 'Something of this line has come or was billed. Close the order instead.'],
  line_match_order_line: [409, 'Something of this line has come or was billed. Close the order instead.'],
  receipt_line_of_order: [422, ofOthers],
  line_match_of_bill: [422, ofOthers],
  goods_receipt_number: [409, 'This order has a receipt of this number already.'],
  item_code: [409, 'This item code is taken. Choose another.'],
  payment_terms_code: [409, 'This code is taken. Choose another.'],
  item_price: [422, 'A price is zero or more, and has its currency.'],
  budget_account: [422, ofOthers],
  budget_centre: [422, ofOthers],
  person_range_most: [422, 'An amount limit is zero or more.'],
  dimension_of_assets: [409, 'Another dimension has the fixed assets already.'],
  dimension_value_account: [422, ofOthers],
  going_with_value: [422, ofOthers],
  coding_rule_supplier: [422, ofOthers],
  coding_rule_account: [422, ofOthers],
  coding_rule_cost_centre: [422, ofOthers],
  coding_rule_tax_code: [422, ofOthers],
  dimension_name: [409, 'There is a dimension of this name already.'],
  dimension_value_code: [409, 'This code is taken. Choose another.'],
  dimension_value_days: [422, 'The last day is before the first.'],
  bill_line_pkey: [409, 'A row with this id is there already. Load the bill again.'],
  bill_sent_is_whole: [422, 'Supplier, number, date or total is missing.'],
  supplier_account: [422, ofOthers],
  supplier_cost_centre: [422, ofOthers],
  supplier_tax_code: [422, ofOthers],
  tax_code_account: [422, ofOthers],
  tax_code_output_account: [422, ofOthers],
  tax_code_withheld_account: [422, ofOthers],
  tax_code_withheld_within: [422, 'What is withheld is a percentage between 0 and 100.'],
  tax_code_withheld_owed: [422, 'What is withheld needs an account that it is owed on.'],
  company_tax_tolerance: [422, 'The tax may differ by zero or more.'],
  tax_code_reverse_charge_owed: [422, 'Reverse charge needs an account for the tax that is owed.'],
  tax_code_rates_within: [422, 'Rate and recoverable share are percentages between 0 and 100.'],
  ledger_account_parent_of_company: [422, ofOthers],
  ledger_account_tax_code: [422, ofOthers],
  cost_centre_parent_of_company: [422, ofOthers],
  ledger_account_ring: [422, 'An account cannot stand under itself, or under one of its own sub-accounts.'],
  cost_centre_ring: [422, 'A cost centre cannot be part of itself, or of one of its own parts.'],
  ledger_account_days: [422, 'The last day is before the first.'],
  cost_centre_days: [422, 'The last day is before the first.'],
  tax_code_days: [422, 'The last day is before the first.'],
  distribution_key_name: [409, 'There is a distribution key of this name already.'],
  distribution_part_centre: [422, ofOthers],
  distribution_part_weight: [422, 'Each share is above zero.'],
  exchange_rate_positive: [422, 'An exchange rate is above zero.'],
  ledger_account_code: [409, 'This account code is taken. Choose another.'],
  cost_centre_code: [409, 'This cost centre code is taken. Choose another.'],
  tax_code_code: [409, 'This tax code is taken. Choose another.'],
  bank_account_once: [409, 'This supplier has this bank account already.'],
  bill_exception_second_person: [403, 'You worked on this bill, or changed its supplier since it came. A second person has to verify it.'],
  bank_account_second_person: [403, 'You entered these bank details yourself. A second person has to verify them.'],
  guide_step_known: [422, 'This step is not known.'],
  person_email_unique: [409, 'Somebody with this mail address is there already.'],
  company_name_unique: [409, 'Another company has this name.'],
  company_mail_address_unique: [409, 'Another company has this mail address.'],
};

/** Does the work; what the database refuses becomes a refusal in words. */
export async function inWords<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    const known = sentences[refusedBy(error) ?? ''];
    if (known) throw new Refusal(...known);
    throw error;
  }
}
