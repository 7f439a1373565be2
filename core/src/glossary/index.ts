export {
  PRODUCT_WORDS,
  TRADE_WORDS,
  glossaryDocument,
  type GlossaryWord,
  type ProductWord,
} from './glossary';
