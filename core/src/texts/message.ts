/** A message in ICU MessageFormat syntax (Unicode CLDR), such as `{count, plural, one {# entry} other {# entries}}`. */
export type Messages = Readonly<Record<string, string>>;

/** All messages of a room in another language: the same keys as the English ones. */
export type Translation<English extends Messages> = Readonly<Record<keyof English, string>>;

export type Value = string | number;

/**
 * The names of the arguments of a message. The type reads the text from brace to brace; `Open` says what each brace that is still
 * open holds, the innermost first: a text, or the options of a plural or select.
 */
type ArgumentsIn<Text extends string, Open extends readonly ('text' | 'options')[] = ['text']> =
  FirstBrace<Text> extends ['{', infer After extends string]
    ? Open[0] extends 'options'
      ? ArgumentsIn<After, ['text', ...Open]>
      : After extends `${infer Name}}${infer Rest}`
        ? Name extends `${infer Chosen},${string}`
          ? Chosen | ArgumentsIn<AfterComma<After>, ['options', ...Open]>
          : Name | ArgumentsIn<Rest, Open>
        : never
    : FirstBrace<Text> extends ['}', infer After extends string]
      ? Open extends readonly [unknown, ...infer Outer extends ('text' | 'options')[]]
        ? ArgumentsIn<After, Outer>
        : never
      : never;

type AfterComma<Text extends string> = Text extends `${string},${infer Rest}` ? Rest : never;

/** The first brace of a text with what follows it, or null. */
type FirstBrace<Text extends string> = Text extends `${infer Before}{${infer Rest}`
  ? Before extends `${string}}${infer Between}`
    ? ['}', `${Between}{${Rest}`]
    : ['{', Rest]
  : Text extends `${string}}${infer Rest}`
    ? ['}', Rest]
    : null;

/** The names of the tags of a message, such as `strong` in `<strong>{name}</strong> was saved`. */
type TagsIn<Text extends string> = Text extends `${string}</${infer Tag}>${infer Rest}`
  ? Tag | TagsIn<Rest>
  : never;

type Named<Names extends string, Type> = Readonly<Record<Names, Type>>;

/** What a message needs besides its key: nothing, or the values of its arguments. */
export type ValuesOf<Text extends string> = [ArgumentsIn<Text>] extends [never]
  ? []
  : [values: Named<ArgumentsIn<Text>, Value>];

/** What a message with tags needs: a node for each argument, and what makes a node of the text in each tag. */
export type RichValuesOf<Text extends string, Node> = Named<ArgumentsIn<Text>, Node | Value> &
  Named<TagsIn<Text>, (text: Node) => Node>;

/** Returns the text of a message. */
export type Text<English extends Messages> = <Key extends keyof English & string>(
  key: Key,
  ...values: ValuesOf<English[Key]>
) => string;
