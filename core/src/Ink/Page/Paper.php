<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Page;

/**
 * What of a page is paper: its brightness place by place (light falls off, pages yellow), whether lines are lighter than
 * their ground as on blueprints, and how far the ink stands off the paper.
 *
 * Levels count after light and dark have been exchanged on a light-on-dark page, so paper is always the brighter.
 */
final readonly class Paper
{
    /** px, side of a cell whose paper is told by itself: wider than a pen, narrower than a shadow */
    private const CELL = 24;
    /** Of a cell's pixels, the part that is darker than its paper: most of a drawing is blank. */
    private const PAPER_QUANTILE = 0.75;
    /** The ink of a page is judged by its darkest part in a hundred. */
    private const INK_QUANTILE = 0.01;
    /** A cell's own ink is judged by its darkest part in fifty. */
    private const CELL_INK_QUANTILE = 0.02;
    /** part of full ink from which a cell counts as inked */
    private const INKED = 0.45;
    /** inked cells round about that tell how dark ink is there */
    private const FEW_INKED = 3;
    /** Of those, the one that stands for full ink: the darkest few may be blots. */
    private const INKED_QUANTILE = 0.85;
    /** cells to either side that count as round about */
    private const NEAR = 4;
    /** of a cell's pixels: those that differ most */
    private const FEW = 0.03;
    /** grey levels: weaker contrast than this is noise */
    private const LEAST_CONTRAST = 30;

    /**
     * @param list<int> $levels columns × rows, row by row, 0 to 255
     * @param int $contrast grey levels from paper to full ink
     */
    private function __construct(
        public int $cell,
        public int $columns,
        public int $rows,
        public array $levels,
        public bool $lightOnDark,
        public int $contrast,
    ) {
    }

    /**
     * @param GreyRaster $small a page reduced to some 1000 to 1500 px along its longer side
     * @param bool|null $lightOnDark where it is known of the whole page
     */
    public static function of(GreyRaster $small, ?bool $lightOnDark = null): self
    {
        $lightOnDark ??= self::isLightOnDark($small);
        $raster = $lightOnDark ? $small->inverted() : $small;
        $columns = (int) ceil($raster->width / self::CELL);
        $rows = (int) ceil($raster->height / self::CELL);
        $levels = [];
        foreach (self::histograms($raster) as $histogram) {
            $levels[] = self::quantile($histogram, self::PAPER_QUANTILE);
        }
        $levels = self::smoothed(self::closed($levels, $columns, $rows), $columns, $rows);
        $below = array_fill(0, 256, 0);
        foreach (self::histograms($raster) as $i => $histogram) {
            foreach ($histogram as $value => $count) {
                $below[max(0, $levels[$i] - $value)] += $count;
            }
        }
        $contrast = self::quantile($below, 1.0 - self::INK_QUANTILE);

        return new self(self::CELL, $columns, $rows, $levels, $lightOnDark, max(self::LEAST_CONTRAST, $contrast));
    }

    /** Nothing on it stands off the paper by more than its grain. */
    public function isBlank(): bool
    {
        return $this->contrast <= self::LEAST_CONTRAST;
    }

    /** Paper's level at a pixel of the raster it was made from. */
    public function at(int $x, int $y): int
    {
        return $this->levels[$this->cellAt($x, $y)];
    }

    /** Which cell a pixel of that raster lies in, row by row. */
    public function cellAt(int $x, int $y): int
    {
        return min($this->rows - 1, intdiv($y, $this->cell)) * $this->columns + min($this->columns - 1, intdiv($x, $this->cell));
    }

    /**
     * How far full ink stands off the paper, cell by cell: by the ink round about, where there is some. One figure for a page fails where
     * it has faded in part, or where a shadow lies on it.
     *
     * @param GreyRaster $small the raster it was made from, dark on light
     *
     * @return list<int> grey levels
     */
    public function contrasts(GreyRaster $small): array
    {
        $own = [];
        foreach (self::histograms($small) as $i => $histogram) {
            $own[] = max(0, $this->levels[$i] - self::quantile($histogram, self::CELL_INK_QUANTILE));
        }
        $sorted = $own;
        sort($sorted);
        $full = max(self::LEAST_CONTRAST, $sorted[(int) (0.95 * (\count($sorted) - 1))] ?? 0);

        return array_map(
            static fn (int $v): int => max(1, min(255, $v)),
            self::smoothed(
                self::filtered(
                    $own,
                    $this->columns,
                    $this->rows,
                    self::NEAR,
                    static fn (array $near): int => self::inked($near, (int) (self::INKED * $full)) ?? $full,
                ),
                $this->columns,
                $this->rows,
            ),
        );
    }

    /**
     * How dark ink is among some cells: null where few of them have any.
     *
     * @param list<int> $values
     */
    private static function inked(array $values, int $least): ?int
    {
        $inked = [];
        foreach ($values as $value) {
            if ($value > $least) {
                $inked[] = $value;
            }
        }
        sort($inked);

        return \count($inked) < self::FEW_INKED ? null : $inked[(int) (self::INKED_QUANTILE * (\count($inked) - 1))];
    }

    /**
     * Ink is sparse: in each cell the few pixels that differ lie on one side of the many that do not. A cell whose many are unlike those
     * of most others lies in solid ink, and there it is the paper that is sparse.
     */
    private static function isLightOnDark(GreyRaster $raster): bool
    {
        $cells = [];
        $all = array_fill(0, 256, 0);
        foreach (self::histograms($raster) as $histogram) {
            $cells[] = [
                self::quantile($histogram, 0.5),
                self::quantile($histogram, self::FEW),
                self::quantile($histogram, 1.0 - self::FEW),
            ];
            foreach ($histogram as $value => $count) {
                $all[$value] += $count;
            }
        }
        $middles = array_count_values(array_column($cells, 0));
        ksort($middles);
        $usual = self::quantile($middles, 0.5);
        $unlike = (self::quantile($all, 1.0 - self::FEW) - self::quantile($all, self::FEW)) / 2.0;
        $sum = 0;
        foreach ($cells as [$middle, $least, $most]) {
            if ($most - $least > self::LEAST_CONTRAST && abs($middle - $usual) <= $unlike) {
                $sum += $most + $least - 2 * $middle;
            }
        }

        return $sum > 0;
    }

    /** @return \Generator<int, array<int, int>> counts by grey value, cell by cell */
    private static function histograms(GreyRaster $raster): \Generator
    {
        $index = 0;
        for ($top = 0; $top < $raster->height; $top += self::CELL) {
            $rows = min(self::CELL, $raster->height - $top);
            for ($left = 0; $left < $raster->width; $left += self::CELL) {
                $bytes = '';
                for ($y = $top; $y < $top + $rows; ++$y) {
                    $bytes .= $raster->row($y, $left, min(self::CELL, $raster->width - $left));
                }
                yield $index++ => count_chars($bytes, 1);
            }
        }
    }

    /** @param array<int, int> $histogram counts by value, ascending */
    private static function quantile(array $histogram, float $part): int
    {
        $left = $part * array_sum($histogram);
        foreach ($histogram as $value => $count) {
            $left -= $count;
            if ($left <= 0.0) {
                return $value;
            }
        }

        return (int) array_key_last($histogram);
    }

    /**
     * Bridges cells that are filled with ink: each takes the brightest of its neighbours, then the darkest of those.
     *
     * @param list<int> $levels
     *
     * @return list<int>
     */
    private static function closed(array $levels, int $columns, int $rows): array
    {
        return self::filtered(
            self::filtered($levels, $columns, $rows, 2, static fn (array $near): int => max($near)),
            $columns,
            $rows,
            2,
            static fn (array $near): int => min($near),
        );
    }

    /**
     * @param list<int> $levels
     *
     * @return list<int>
     */
    private static function smoothed(array $levels, int $columns, int $rows): array
    {
        return self::filtered($levels, $columns, $rows, 1, static fn (array $near): int => intdiv(array_sum($near), max(1, \count($near))));
    }

    /**
     * @param list<int> $levels
     * @param callable(non-empty-list<int>): int $choose
     *
     * @return list<int>
     */
    private static function filtered(array $levels, int $columns, int $rows, int $reach, callable $choose): array
    {
        $out = [];
        for ($y = 0; $y < $rows; ++$y) {
            for ($x = 0; $x < $columns; ++$x) {
                $near = [$levels[$y * $columns + $x]];
                for ($v = max(0, $y - $reach); $v <= min($rows - 1, $y + $reach); ++$v) {
                    for ($u = max(0, $x - $reach); $u <= min($columns - 1, $x + $reach); ++$u) {
                        $near[] = $levels[$v * $columns + $u];
                    }
                }
                $out[] = $choose($near);
            }
        }

        return $out;
    }
}
