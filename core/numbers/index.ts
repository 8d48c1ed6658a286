export {
  type DecimalSign,
  type NumberStyle,
  currencySigns,
  currencyCodes,
  isCurrency,
  parseNumber,
  numberAsPrinted,
  parsePercent,
  hasDecimals,
  decideStyle,
} from './numbers.ts';
