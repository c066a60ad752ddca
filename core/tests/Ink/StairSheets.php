<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Ink;

use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\GreyRaster;

/** Draws flights of stairs as plans show them, anyhow turned, worn and cluttered, with what is true of them. Every seed is another. */
final class StairSheets
{
    public readonly int $risers;
    /** mm */
    public readonly float $going;
    public readonly float $width;
    public readonly Point $from;
    public readonly Point $to;
    public readonly float $mmPerPixel;
    public readonly PixelToMm $map;
    public readonly GreyRaster $page;
    /** @var array{int, Point, Point}|null risers of a second flight that goes on to the left behind a landing, first and last of them */
    public readonly ?array $second;

    /** @var list<array{float, float, float, float, float, float}> from, to, pen, mm, and how dark */
    private array $lines = [];

    public function __construct(int $seed, bool $isBent = false)
    {
        mt_srand($seed);
        $this->risers = mt_rand(4, 19);
        $this->going = self::between(210.0, 300.0);
        $this->width = self::between(750.0, 1300.0);
        $this->mmPerPixel = self::between(7.0, 16.0);
        $run = ($this->risers - 1) * $this->going;
        $turn = 0 === $seed % 2 ? self::between(-0.06, 0.06) + \M_PI_2 * mt_rand(0, 3) : self::between(0.0, 2.0 * \M_PI);
        $more = $isBent ? mt_rand(4, 10) : 0;
        $beyond = $isBent ? 2.0 * ($this->width + $more * $this->going) : 0.0;
        $size = (int) ceil((hypot($run + $beyond, $this->width + $beyond) + 1200.0) / $this->mmPerPixel);
        $middle = $size * $this->mmPerPixel / 2.0;
        [$ux, $uy] = [cos($turn), sin($turn)];
        $at = static fn (float $s, float $n): Point => new Point($middle + ($s - $run / 2.0) * $ux - $n * $uy, $middle + ($s - $run / 2.0) * $uy + $n * $ux);
        // The model's y runs up.
        [$a, $b] = [$at(0.0, 0.0), $at($run, 0.0)];
        [$this->from, $this->to] = [new Point($a->x, -$a->y), new Point($b->x, -$b->y)];
        $this->map = PixelToMm::similar($this->mmPerPixel, 0.0, new PixelPoint(0.0, 0.0), new Point(0.0, 0.0));
        $half = $this->width / 2.0;
        $dark = self::between(0.35, 0.9);
        $pen = self::between(9.0, 26.0);
        $line = function (Point $p, Point $q, float $pen, float $dark): void {
            $this->lines[] = [$p->x, $p->y, $q->x, $q->y, $pen, $dark];
        };
        $cut = mt_rand(0, 2) > 0 ? mt_rand(3, max(3, $this->risers - 2)) : $this->risers;
        for ($k = 0; $k < $this->risers; ++$k) {
            $sway = self::between(-4.0, 4.0);
            if ($k < $cut || 0 === $seed % 3) {
                $line($at($k * $this->going + $sway, -$half), $at($k * $this->going - $sway, $half), $pen, $dark);
            } else {
                // Dashed beyond the cut.
                for ($n = -$half; $n < $half - 60.0; $n += 110.0) {
                    $line($at($k * $this->going, $n), $at($k * $this->going, min($half, $n + 70.0)), $pen, $dark);
                }
            }
        }
        foreach ([-1.0, 1.0] as $side) {
            $line($at(0.0, $side * $half), $at($run, $side * $half), $pen, $dark);
            // A wall beside it.
            $line($at(-300.0, $side * ($half + 90.0)), $at($run + 300.0, $side * ($half + 90.0)), 0 === mt_rand(0, 1) ? 110.0 : $pen, $dark);
        }
        if ($isBent) {
            $end = $half + ($more - 1) * $this->going;
            for ($k = 0; $k < $more; ++$k) {
                $n = $half + $k * $this->going;
                $line($at($run, $n), $at($run + $this->width, $n), $pen, $dark);
            }
            // Round the landing and along both edges.
            foreach ([[0.0, -$half, $this->width, -$half], [0.0, $half, 0.0, $end], [$this->width, -$half, $this->width, $end]] as [$s, $n, $t, $m]) {
                $line($at($run + $s, $n), $at($run + $t, $m), $pen, $dark);
            }
            $line($at($run - 60.0, 10.0), $at($run + $half, 10.0), $pen, $dark);
            $line($at($run + $half, 10.0), $at($run + $half, $end - 60.0), $pen, $dark);
            $ends = array_map(static fn (Point $p): Point => new Point($p->x, -$p->y), [$at($run + $half, $half), $at($run + $half, $end)]);
            $this->second = [$more, ...$ends];
        } else {
            $this->second = null;
        }
        // The arrow, some figures, a cut across.
        $line($at(-60.0, self::between(-40.0, 40.0)), $at($run - 60.0, self::between(-40.0, 40.0)), $pen, $dark);
        for ($i = 0; $i < mt_rand(0, $this->risers); ++$i) {
            [$s, $n] = [self::between(60.0, $run), self::between(-0.4, 0.4) * $this->width];
            $line($at($s, $n), $at($s + self::between(-60.0, 60.0), $n + self::between(20.0, 90.0)), $pen, $dark);
        }
        if ($cut < $this->risers) {
            $line($at($cut * $this->going - 120.0, -$half - 60.0), $at($cut * $this->going + 60.0, $half + 60.0), $pen, $dark);
        }
        $this->page = $this->drawn($size, mt_rand(0, 30));
    }

    private function drawn(int $size, int $grain): GreyRaster
    {
        $ink = array_fill(0, $size * $size, 0.0);
        foreach ($this->lines as [$ax, $ay, $bx, $by, $pen, $dark]) {
            $half = $pen / 2.0;
            $length = max(1e-9, hypot($bx - $ax, $by - $ay));
            [$ux, $uy] = [($bx - $ax) / $length, ($by - $ay) / $length];
            $box = [min($ax, $bx), min($ay, $by), max($ax, $bx), max($ay, $by)];
            [$left, $top] = [max(0, (int) (($box[0] - $half) / $this->mmPerPixel) - 1), max(0, (int) (($box[1] - $half) / $this->mmPerPixel) - 1)];
            $right = min($size - 1, (int) (($box[2] + $half) / $this->mmPerPixel) + 1);
            $bottom = min($size - 1, (int) (($box[3] + $half) / $this->mmPerPixel) + 1);
            for ($y = $top; $y <= $bottom; ++$y) {
                for ($x = $left; $x <= $right; ++$x) {
                    [$px, $py] = [($x + 0.5) * $this->mmPerPixel - $ax, ($y + 0.5) * $this->mmPerPixel - $ay];
                    $s = $px * $ux + $py * $uy;
                    $off = max(abs($py * $ux - $px * $uy) - $half, -$s, $s - $length);
                    $part = max(0.0, min(1.0, 0.5 - $off / $this->mmPerPixel));
                    $ink[$y * $size + $x] = max($ink[$y * $size + $x], $part * $dark);
                }
            }
        }
        $bytes = '';
        foreach ($ink as $part) {
            $bytes .= \chr((int) max(0, min(255, 235.0 * (1.0 - $part) + mt_rand(-$grain, $grain))));
        }

        return new GreyRaster($size, $size, $bytes);
    }

    private static function between(float $low, float $high): float
    {
        return $low + ($high - $low) * mt_rand() / mt_getrandmax();
    }
}
