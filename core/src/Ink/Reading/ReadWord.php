<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading;

/** A word as recognised, with its box in pixels of the picture it was read from. */
final readonly class ReadWord
{
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
}
