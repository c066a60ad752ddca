<?php

declare(strict_types=1);

// Every refusal, doubt and hint that the application says, gathered from where it is written, for reading as one who has never seen it.
//   php ops/words.php > docs/refusals-and-hints.md      form in bin/test says where that is out of date

$root = dirname(__DIR__).'/';
$one = "'(?:[^'\\\\]|\\\\.)+'";
$text = "($one(?:\\s*\\.\\s*$one)*)";
$sources = [
    'Refusals of the computation' => ['core/src', '~/Exception/~', ["/(?:sprintf\\(\\s*|new self\\(\\s*|=> )$text/"]],
    'Refusals of the server' => ['server/src', '~~', ["/Refusal::\\w+\\(\\s*'[\\w-]+',\\s*(?:\\\\sprintf\\(\\s*)?$text/"]],
    'Advice, doubts and findings' => ['core/src', '~/(Plausibility|Fitting|Derivation|Network|Pages|Settling)/~', ["/(?:new (?:Advice|Doubt|Finding)\\([^;]{0,120}?|sprintf\\(\\s*)$text/"]],
    'Hints and refusals of the interface' => ['web/src', '~(?<!\.test)\.tsx?$~', [
        '/(?:slipError|hint|when|words)\s*[:=]\s*["`]((?:[^"`\\\\]|\\\\.)+)["`]/', '/\bsay\(\s*"((?:[^"\\\\]|\\\\.)+)"/',
        '/placeholder="([^"]+)"/', '/>\s*([A-Z][^<>{}=;]{24,}[.:])\s*</', '/[?:]\s*"([A-Z][^"]{24,})"/',
    ]],
];
echo "# What the application says\n\nEvery refusal, doubt and hint, in the words in which it is said; `%s` and `\${…}` stand for what is told. Gathered by\n`php ops/words.php`.\n";
foreach ($sources as $title => [$folder, $files, $patterns]) {
    $said = [];
    foreach (new RecursiveIteratorIterator(new RecursiveDirectoryIterator($root.$folder, FilesystemIterator::SKIP_DOTS)) as $file) {
        $path = (string) $file;
        if (1 !== preg_match($files, $path) || str_contains($path, '/testing/') || str_ends_with($path, 'schema.d.ts')) {
            continue;
        }
        foreach ($patterns as $pattern) {
            preg_match_all($pattern, (string) file_get_contents($path), $found);
            foreach ($found[1] as $words) {
                // What is written in several pieces is said in one.
                $words = "'" === $words[0] ? substr((string) preg_replace("/'\\s*\\.\\s*'/", '', $words), 1, -1) : $words;
                $words = trim((string) preg_replace('/\s+/', ' ', stripslashes($words)));
                if (substr_count($words, ' ') >= 2 && 1 === preg_match('/[a-z]{3}/', $words)) {
                    $said[$words] = true;
                }
            }
        }
    }
    ksort($said, SORT_STRING | SORT_FLAG_CASE);
    printf("\n## %s\n%s\n", $title, implode("\n", array_map(static fn (string $w): string => '- '.$w, array_keys($said))));
}
