<?php

declare(strict_types=1);

namespace Plinth\Core\Geometry;

/**
 * Rings as plain lists of [x, y], the first point not repeated at the end. Positive area means counter-clockwise (y up).
 *
 * @phpstan-type Ring list<array{float, float}>
 */
final class Polygon
{
    /**
     * Signed area by the shoelace formula, taken about the first point so that a ring far from the origin loses no digits.
     *
     * @param Ring $ring
     *
     * @return float in the square of the ring's unit; 0 for fewer than three points
     */
    public static function area(array $ring): float
    {
        $sum = 0.0;
        if (\count($ring) < 3) {
            return 0.0;
        }
        [$ox, $oy] = $ring[0];
        $px = 0.0;
        $py = 0.0;
        foreach ($ring as [$x, $y]) {
            $x -= $ox;
            $y -= $oy;
            $sum += $px * $y - $x * $py;
            $px = $x;
            $py = $y;
        }

        return $sum / 2.0;
    }

    /**
     * Even-odd rule; a point on the ring may count either way.
     *
     * @param Ring $ring
     */
    public static function contains(array $ring, float $x, float $y): bool
    {
        $inside = false;
        $n = \count($ring);
        for ($i = 0, $j = $n - 1; $i < $n; $j = $i++) {
            [$xi, $yi] = $ring[$i];
            [$xj, $yj] = $ring[$j];
            if (($yi > $y) !== ($yj > $y) && $x < ($xj - $xi) * ($y - $yi) / ($yj - $yi) + $xi) {
                $inside = !$inside;
            }
        }

        return $inside;
    }

    /**
     * @param non-empty-list<array{float, float}> $ring
     *
     * @return array{float, float, float, float} xmin, ymin, xmax, ymax
     */
    public static function bounds(array $ring): array
    {
        $xs = array_column($ring, 0);
        $ys = array_column($ring, 1);

        return [min($xs), min($ys), max($xs), max($ys)];
    }

    /**
     * A point well inside the ring and outside its holes, for a label: the middle of the longest horizontal chord near the middle height.
     *
     * @param non-empty-list<array{float, float}> $ring
     * @param list<Ring> $holes
     *
     * @return array{float, float}
     */
    public static function labelPoint(array $ring, array $holes = []): array
    {
        [, $ymin, , $ymax] = self::bounds($ring);
        $best = $ring[0];
        $width = -1.0;
        // Off-centre heights first miss vertices that lie exactly in the middle.
        foreach ([0.503, 0.37, 0.641, 0.23, 0.783] as $part) {
            $y = $ymin + $part * ($ymax - $ymin);
            $crossings = [];
            foreach ([$ring, ...$holes] as $each) {
                foreach ($each as $i => [$x1, $y1]) {
                    [$x2, $y2] = $each[($i + 1) % \count($each)];
                    if (($y1 > $y) !== ($y2 > $y)) {
                        $crossings[] = $x1 + ($y - $y1) * ($x2 - $x1) / ($y2 - $y1);
                    }
                }
            }
            sort($crossings);
            for ($i = 0; $i + 1 < \count($crossings); $i += 2) {
                // A chord must be clearly longer to win over one nearer the middle.
                if ($crossings[$i + 1] - $crossings[$i] > 1.25 * $width) {
                    $width = $crossings[$i + 1] - $crossings[$i];
                    $best = [($crossings[$i] + $crossings[$i + 1]) / 2.0, $y];
                }
            }
        }

        return $best;
    }
}
