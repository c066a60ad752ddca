import { marked } from "marked";
import type { Plugin } from "vite";

/** A Markdown document becomes HTML when the interface is built; its pictures go along as files of their own. */
export function documents(): Plugin {
  return {
    name: "documents",
    async transform(source, id) {
      if (!id.endsWith(".md")) return null;
      const pictures = [...new Set(source.match(/screenshots\/[\w-]+\.png/g))];
      const html = (await marked.parse(source)).replaceAll("<img ", '<img loading="lazy" ');
      const imports = pictures.map((picture, i) => `import p${i} from "./${picture}";`).join("\n");
      const put = pictures.map((picture, i) => `.replaceAll(${JSON.stringify(picture)}, p${i})`).join("");
      return { code: `${imports}\nexport default ${JSON.stringify(html)}${put};`, map: null };
    },
  };
}
