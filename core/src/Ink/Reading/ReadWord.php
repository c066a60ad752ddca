<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading;

/** A word as recognised, with its box in pixels of the picture it was read from. */
final readonly class ReadWord
{
    /** Words of one text stand no further apart than this, part of their height. */
    private const WORD_GAP = 0.95;

    /** @param float $confidence 0 to 1 */
    public function __construct(
        public string $text,
        public float $confidence,
        public float $left,
        public float $top,
        public float $width,
        public float $height,
    ) {
    }

    /**
     * Words of a recogniser's table: tab separated with a head; level 5 is a word, confidence in per cent.
     *
     * @return list<self>
     */
    public static function ofTable(string $tsv): array
    {
        $words = [];
        foreach (explode("\n", $tsv) as $line) {
            $cells = explode("\t", rtrim($line, "\r"));
            if (12 === \count($cells) && '5' === $cells[0] && '' !== trim($cells[11])) {
                $words[] = new self(
                    trim($cells[11]),
                    max(0.0, min(1.0, (float) $cells[10] / 100.0)),
                    (float) $cells[6],
                    (float) $cells[7],
                    (float) $cells[8],
                    (float) $cells[9],
                );
            }
        }

        return $words;
    }

    /**
     * Words side by side as one text each.
     *
     * @param list<self> $words
     *
     * @return list<self>
     */
    public static function inLines(array $words): array
    {
        usort($words, static fn (self $a, self $b): int => $a->left <=> $b->left);
        $texts = [];
        foreach ($words as $word) {
            if ($word->confidence < 0.05 || $word->height < 4.0) {
                continue;
            }
            foreach ($texts as $k => $text) {
                $high = max($text->height, $word->height);
                $gap = $word->left - $text->left - $text->width;
                if (
                    $gap > -$high && $word->left > $text->left + $text->width / 2.0
                    && $gap < self::WORD_GAP * min($high, 1.4 * min($text->height, $word->height))
                    && abs($word->top + $word->height / 2.0 - $text->top - $text->height / 2.0) < 0.35 * $high
                    && min($text->height, $word->height) > 0.3 * $high
                ) {
                    $top = min($text->top, $word->top);
                    $texts[$k] = new self(
                        $text->text.' '.$word->text,
                        min($text->confidence, $word->confidence),
                        $text->left,
                        $top,
                        $word->left + $word->width - $text->left,
                        max($text->top + $text->height, $word->top + $word->height) - $top,
                    );
                    continue 2;
                }
            }
            $texts[] = $word;
        }

        return array_values($texts);
    }
}
