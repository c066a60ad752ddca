<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

/** A sheet cut into pieces that a small printer takes, which overlap and have marks where they lie on each other. */
final class Tiles
{
    public const OVERLAP_MM = 10.0;
    /** What printers leave white all round, mm; common practice, no source. */
    public const MARGIN_MM = 8.0;
    private const MARK_MM = 5.0;

    /**
     * @param float $width mm of the sheet
     * @param float $height mm of the sheet
     *
     * @return array{float, float, list<array{float, float, string}>} width and height of the paper; of each piece left and top of what it
     *                                                                shows, mm of the sheet, and its name: `A1`, `B1`, …
     */
    public static function of(float $width, float $height, PaperSize $paper): array
    {
        [$short, $long] = $paper->sides();
        $best = null;
        foreach ([[$short, $long], [$long, $short]] as [$wide, $high]) {
            [$stepX, $stepY] = [$wide - 2.0 * self::MARGIN_MM - self::OVERLAP_MM, $high - 2.0 * self::MARGIN_MM - self::OVERLAP_MM];
            $columns = max(1, (int) ceil(($width - self::OVERLAP_MM) / $stepX - 1e-9));
            $rows = max(1, (int) ceil(($height - self::OVERLAP_MM) / $stepY - 1e-9));
            if (null === $best || $columns * $rows < $best[4] * $best[5]) {
                $best = [$wide, $high, $stepX, $stepY, $columns, $rows];
            }
        }
        [$wide, $high, $stepX, $stepY, $columns, $rows] = $best;
        $pieces = [];
        for ($row = 0; $row < $rows; ++$row) {
            for ($column = 0; $column < $columns; ++$column) {
                $pieces[] = [$column * $stepX, $row * $stepY, \chr(65 + $column % 26).($row + 1)];
            }
        }

        return [$wide, $high, $pieces];
    }

    /**
     * What is printed on a piece beside the sheet's ink: where its overlaps end, and its name; mm of its paper.
     *
     * @param float $wide mm of the paper
     * @param float $high mm of the paper
     */
    public static function marks(float $wide, float $high, string $name): SheetInk
    {
        [$m, $o] = [self::MARGIN_MM, self::OVERLAP_MM];
        $lines = [];
        foreach ([[$m, $m], [$wide - $m, $m], [$m, $high - $m], [$wide - $m, $high - $m]] as [$x, $y]) {
            // Into the overlap: the same place on the next piece has the same mark.
            foreach ([$x < $wide / 2.0 ? $x + $o : $x - $o, $x] as $atX) {
                foreach ([$y < $high / 2.0 ? $y + $o : $y - $o, $y] as $atY) {
                    $lines[] = new InkLine([[$atX - self::MARK_MM / 2.0, $atY], [$atX + self::MARK_MM / 2.0, $atY]], InkLine::FINE);
                    $lines[] = new InkLine([[$atX, $atY - self::MARK_MM / 2.0], [$atX, $atY + self::MARK_MM / 2.0]], InkLine::FINE);
                }
            }
        }

        return new SheetInk([], $lines, [new InkText($wide / 2.0, $high - 2.5, $name, 2.5, 'middle')]);
    }
}
