/** A document, as HTML. */
declare module "*.md" {
  const html: string;
  export default html;
}
