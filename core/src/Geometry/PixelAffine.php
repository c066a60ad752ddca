<?php

declare(strict_types=1);

namespace Plinth\Core\Geometry;

/** An affine mapping from one page's pixels to another's: (x, y) → (a·x + b·y + c, d·x + e·y + f). */
final readonly class PixelAffine
{
    /** Places that spread less across their line than this part of how they spread along it tell nothing of what lies beside it. */
    private const LEAST_ACROSS = 0.05;

    public function __construct(public float $a, public float $b, public float $c, public float $d, public float $e, public float $f)
    {
    }

    public static function identity(): self
    {
        return new self(1.0, 0.0, 0.0, 0.0, 1.0, 0.0);
    }

    /** Turn (clockwise as seen, radians) and scale, taking one point onto another. */
    public static function similar(float $scale, float $turnRad, PixelPoint $from, PixelPoint $to): self
    {
        $c = $scale * cos($turnRad);
        $s = $scale * sin($turnRad);

        return new self($c, -$s, $to->x - $c * $from->x + $s * $from->y, $s, $c, $to->y - $s * $from->x - $c * $from->y);
    }

    /**
     * Best affine mapping in the least-squares sense; with two pairs, or three nearly in line, the best similar one.
     *
     * @param non-empty-list<array{PixelPoint, PixelPoint}> $pairs at least two that differ
     */
    public static function through(array $pairs): self
    {
        $n = \count($pairs);
        [$mx, $my, $mu, $mv] = [0.0, 0.0, 0.0, 0.0];
        foreach ($pairs as [$p, $q]) {
            $mx += $p->x / $n;
            $my += $p->y / $n;
            $mu += $q->x / $n;
            $mv += $q->y / $n;
        }
        [$xx, $xy, $yy, $xu, $yu, $xv, $yv] = array_fill(0, 7, 0.0);
        foreach ($pairs as [$p, $q]) {
            [$x, $y, $u, $v] = [$p->x - $mx, $p->y - $my, $q->x - $mu, $q->y - $mv];
            $xx += $x * $x;
            $xy += $x * $y;
            $yy += $y * $y;
            $xu += $x * $u;
            $yu += $y * $u;
            $xv += $x * $v;
            $yv += $y * $v;
        }
        $det = $xx * $yy - $xy * $xy;
        // Spread along the line that the places lie nearest to, and across it: the same however they are turned.
        [$middle, $half] = [($xx + $yy) / 2.0, hypot(($xx - $yy) / 2.0, $xy)];
        if ($n < 3 || $middle - $half <= self::LEAST_ACROSS ** 2 * ($middle + $half)) {
            $c = ($xu + $yv) / max(1e-12, $xx + $yy);
            $s = ($xv - $yu) / max(1e-12, $xx + $yy);
            [$a, $b, $d, $e] = [$c, -$s, $s, $c];
        } else {
            [$a, $b, $d, $e] = [
                ($xu * $yy - $yu * $xy) / $det,
                ($yu * $xx - $xu * $xy) / $det,
                ($xv * $yy - $yv * $xy) / $det,
                ($yv * $xx - $xv * $xy) / $det,
            ];
        }

        return new self($a, $b, $mu - $a * $mx - $b * $my, $d, $e, $mv - $d * $mx - $e * $my);
    }

    public function of(PixelPoint $p): PixelPoint
    {
        return new PixelPoint($this->a * $p->x + $this->b * $p->y + $this->c, $this->d * $p->x + $this->e * $p->y + $this->f);
    }

    public function inverse(): self
    {
        $det = $this->a * $this->e - $this->b * $this->d;

        return new self(
            $this->e / $det, -$this->b / $det, ($this->b * $this->f - $this->e * $this->c) / $det,
            -$this->d / $det, $this->a / $det, ($this->d * $this->c - $this->a * $this->f) / $det,
        );
    }

    /** First this, then pixels to millimetres. A lens comes along as through a similar mapping. */
    public function then(PixelToMm $map): PixelToMm
    {
        [$a, $b, $c, $d, $e, $f, $g, $h, $i] = $map->matrix();

        return PixelToMm::ofMatrix([
            $a * $this->a + $b * $this->d, $a * $this->b + $b * $this->e, $a * $this->c + $b * $this->f + $c,
            $d * $this->a + $e * $this->d, $d * $this->b + $e * $this->e, $d * $this->c + $e * $this->f + $f,
            $g * $this->a + $h * $this->d, $g * $this->b + $h * $this->e, $g * $this->c + $h * $this->f + $i,
        ], null === $map->lens ? null : new Lens(
            $map->lens->k * abs($this->a * $this->e - $this->b * $this->d),
            $this->inverse()->of($map->lens->centre),
        ));
    }

    /** The upright box round what a box becomes. */
    public function boxOf(PixelBox $box): PixelBox
    {
        $xs = [];
        $ys = [];
        foreach ($box->corners() as $corner) {
            $to = $this->of($corner);
            $xs[] = $to->x;
            $ys[] = $to->y;
        }

        return PixelBox::between(min($xs), min($ys), max($xs), max($ys));
    }

    /** Turn of the x axis, clockwise as seen, degrees in (−180, 180]. */
    public function turnDegrees(): float
    {
        return rad2deg(atan2($this->d, $this->a));
    }

    /** @return array{float, float} factors along the first page's x and y */
    public function stretch(): array
    {
        return [hypot($this->a, $this->d), hypot($this->b, $this->e)];
    }

    /** @return array{float, float, float, float, float, float} */
    public function toArray(): array
    {
        return [$this->a, $this->b, $this->c, $this->d, $this->e, $this->f];
    }
}
