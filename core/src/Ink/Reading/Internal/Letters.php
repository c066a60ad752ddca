<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Reading\Internal;

use Plinth\Core\Ink\Page\Blobs;
use Plinth\Core\Ink\Page\Mask;

/**
 * Ink without what can be no letter: among lines and hatching a recogniser looks for long, and reads them as words.
 *
 * @internal
 */
final class Letters
{
    /** ink from which a pixel counts as inked, 0 to 255 */
    private const LEVEL = 96;
    /** px: what has fewer is dirt */
    private const LEAST_INK = 3;

    /**
     * @param list<string> $rows of ink, 0 for paper to 255
     * @param float $least how long a piece is at least, px: below it is dirt; a comma or a point stays
     * @param float $most beyond it is a line
     *
     * @return list<string> the same with all else blank
     */
    public static function in(array $rows, float $least, float $most): array
    {
        $marks = array_map(static fn (string $row): string => str_repeat("\0", \strlen($row)), $rows);
        $last = \count($rows) - 1;
        foreach (Blobs::joined(array_map(static fn (string $row): string => Mask::of($row, self::LEVEL), $rows)) as $blob) {
            $size = max($blob->box->width, $blob->box->height);
            foreach ($size < $least || $size > $most || $blob->ink < self::LEAST_INK ? [] : $blob->runs as [$y, $from, $to]) {
                // Letters are blurred by a pixel beyond the level that tells them.
                [$from, $to] = [max(0, $from - 1), min(\strlen($rows[$y]), $to + 1)];
                for ($v = max(0, $y - 1); $v <= min($last, $y + 1); ++$v) {
                    $marks[$v] = substr_replace($marks[$v], str_repeat("\xFF", $to - $from), $from, $to - $from);
                }
            }
        }

        return array_map(static fn (string $row, string $mark): string => $row & $mark, $rows, $marks);
    }
}
