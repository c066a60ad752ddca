<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading;

/** The scale that a drawing states of itself, as among recognised words: 1:50, SCALE 1 : 100, 1/4" = 1'-0". */
final class WrittenScale
{
    /** Drawings of buildings state these: ISO 5455 with those between that offices use (common practice, no source). */
    private const SCALES = [1, 2, 5, 10, 20, 25, 50, 75, 100, 125, 150, 200, 250, 300, 400, 500, 750, 1000, 1250, 2000, 2500, 5000];
    /** sixteenths of an inch of the drawing to a foot of the building: common practice, no source */
    private const SIXTEENTHS = [1, 2, 3, 4, 6, 8, 12, 16, 24, 48];
    private const INCHES = 12.0;
    private const LEAST_CONFIDENCE = 0.5;

    /**
     * @param list<ReadWord> $words in the order in which they were recognised
     *
     * @return float|null one to so many; null where no scale is stated, or several are
     */
    public static function in(array $words): ?float
    {
        $sure = array_filter($words, static fn (ReadWord $w): bool => $w->confidence >= self::LEAST_CONFIDENCE);
        $text = strtr(
            implode(' ', array_map(static fn (ReadWord $w): string => $w->text, $sure)),
            ['’' => "'", '′' => "'", '”' => '"', '″' => '"', '“' => '"'],
        );
        $stated = [];
        preg_match_all('~(?<![\d.,:/])1 ?: ?(\d{1,4})(?![\d.,:/])~', $text, $ratios);
        foreach ($ratios[1] as $ratio) {
            if (\in_array((int) $ratio, self::SCALES, true)) {
                $stated[] = (float) $ratio;
            }
        }
        preg_match_all('~(?<![\d/])(?:(\d) )?(\d{1,2})(?:/(\d{1,2}))?" ?= ?1\'(?:-? ?0")?~', $text, $inches, \PREG_SET_ORDER);
        foreach ($inches as $parts) {
            $sixteenths = 16.0 * ((int) $parts[1] + (int) $parts[2] / max(1, (int) ($parts[3] ?? 1)));
            if (\in_array($sixteenths, array_map(floatval(...), self::SIXTEENTHS), true)) {
                $stated[] = 16.0 * self::INCHES / $sixteenths;
            }
        }
        $stated = array_unique($stated);

        return 1 === \count($stated) ? reset($stated) : null;
    }
}
