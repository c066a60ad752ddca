<?php

declare(strict_types=1);

namespace Plinth\Core\Geometry;

/**
 * The mapping T from page pixels to model millimetres as a 3 × 3 matrix, row by row:
 *
 *     [X, Y, W] = M · [px, py, 1],  model point = (X / W, Y / W)
 *
 * The image axis is flipped inside (pixels run down, the model runs up), so the determinant of the linear part is
 * negative. A photograph may have been bent by its lens, which is taken back first.
 */
final readonly class PixelToMm
{
    /** @param array{float, float, float, float, float, float, float, float, float} $m row by row */
    private function __construct(private array $m, public ?Lens $lens = null)
    {
    }

    /** @param array{float, float, float, float, float, float, float, float, float} $m row by row */
    public static function ofMatrix(array $m, ?Lens $lens = null): self
    {
        return new self($m, $lens);
    }

    /**
     * One scale and one turn about a fixed point.
     *
     * @param float $mmPerPixel scale, > 0
     * @param float $turnRad turn given to the picture, counter-clockwise as seen
     * @param PixelPoint $centre the pixel that lands on $centreMm
     */
    public static function similar(float $mmPerPixel, float $turnRad, PixelPoint $centre, Point $centreMm): self
    {
        $c = $mmPerPixel * cos($turnRad);
        $s = $mmPerPixel * sin($turnRad);

        return new self([
            $c, $s, $centreMm->x - $c * $centre->x - $s * $centre->y,
            $s, -$c, $centreMm->y - $s * $centre->x + $c * $centre->y,
            0.0, 0.0, 1.0,
        ]);
    }

    public function toMm(PixelPoint $p): Point
    {
        [$a, $b, $c, $d, $e, $f, $g, $h, $i] = $this->m;
        $p = null === $this->lens ? $p : $this->lens->straight($p);
        $w = $g * $p->x + $h * $p->y + $i;

        return new Point(($a * $p->x + $b * $p->y + $c) / $w, ($d * $p->x + $e * $p->y + $f) / $w);
    }

    public function toPixel(Point $p): PixelPoint
    {
        [$a, $b, $c, $d, $e, $f, $g, $h, $i] = $this->m;
        // The adjugate serves as inverse: homogeneous coordinates do not care about its factor.
        $x = ($e * $i - $f * $h) * $p->x + ($c * $h - $b * $i) * $p->y + ($b * $f - $c * $e);
        $y = ($f * $g - $d * $i) * $p->x + ($a * $i - $c * $g) * $p->y + ($c * $d - $a * $f);
        $w = ($d * $h - $e * $g) * $p->x + ($b * $g - $a * $h) * $p->y + ($a * $e - $b * $d);

        $straight = new PixelPoint($x / $w, $y / $w);

        return null === $this->lens ? $straight : $this->lens->bent($straight);
    }

    /** The mapping with the picture turned about a model point, counter-clockwise as seen, radians. */
    public function turned(float $turnRad, Point $about): self
    {
        [$a, $b, $c, $d, $e, $f, $g, $h, $i] = $this->m;
        $cos = cos($turnRad);
        $sin = sin($turnRad);
        $x = $about->x - $cos * $about->x + $sin * $about->y;
        $y = $about->y - $sin * $about->x - $cos * $about->y;

        return new self([
            $cos * $a - $sin * $d + $x * $g, $cos * $b - $sin * $e + $x * $h, $cos * $c - $sin * $f + $x * $i,
            $sin * $a + $cos * $d + $y * $g, $sin * $b + $cos * $e + $y * $h, $sin * $c + $cos * $f + $y * $i,
            $g, $h, $i,
        ], $this->lens);
    }

    /** The mapping with the picture shifted, mm. */
    public function shifted(float $dx, float $dy): self
    {
        [$a, $b, $c, $d, $e, $f, $g, $h, $i] = $this->m;

        return new self(
            [$a + $dx * $g, $b + $dx * $h, $c + $dx * $i, $d + $dy * $g, $e + $dy * $h, $f + $dy * $i, $g, $h, $i],
            $this->lens,
        );
    }

    /** How far off a pixel lies beside the page's centre, no unit: 1 everywhere on a flat page, 0 at the horizon. */
    public function depthAt(PixelPoint $p): float
    {
        $p = null === $this->lens ? $p : $this->lens->straight($p);

        return $this->m[6] * $p->x + $this->m[7] * $p->y + $this->m[8];
    }

    /**
     * Derivatives at a pixel.
     *
     * @return array{float, float, float, float} dX/dx, dX/dy, dY/dx, dY/dy in mm per pixel
     */
    public function linearAt(PixelPoint $p): array
    {
        [$a, $b, , $d, $e, , $g, $h] = $this->m;
        $w = $this->depthAt($p);
        $to = $this->toMm($p);

        $linear = [($a - $g * $to->x) / $w, ($b - $h * $to->x) / $w, ($d - $g * $to->y) / $w, ($e - $h * $to->y) / $w];
        if (null === $this->lens) {
            return $linear;
        }
        [$xx, $xy, $yx, $yy] = $this->lens->linearAt($p);

        return [
            $linear[0] * $xx + $linear[1] * $yx,
            $linear[0] * $xy + $linear[1] * $yy,
            $linear[2] * $xx + $linear[3] * $yx,
            $linear[2] * $xy + $linear[3] * $yy,
        ];
    }

    /** Scale at the given pixel, the geometric mean of both directions. */
    public function mmPerPixelAt(PixelPoint $p): float
    {
        $o = $this->toMm($p);
        $x = $this->toMm(new PixelPoint($p->x + 0.5, $p->y));
        $y = $this->toMm(new PixelPoint($p->x, $p->y + 0.5));

        return 2.0 * sqrt(abs(($x->x - $o->x) * ($y->y - $o->y) - ($x->y - $o->y) * ($y->x - $o->x)));
    }

    /** Turn given to the picture's x axis, radians in (−π, π]. */
    public function turnRadAt(PixelPoint $p): float
    {
        $o = $this->toMm($p);
        $x = $this->toMm(new PixelPoint($p->x + 1.0, $p->y));

        return atan2($x->y - $o->y, $x->x - $o->x);
    }

    /** @return array{float, float, float, float, float, float, float, float, float} row by row */
    public function matrix(): array
    {
        return $this->m;
    }

    /** @return list<array{float, float, float}> */
    public function rows(): array
    {
        $m = $this->m;

        return [[$m[0], $m[1], $m[2]], [$m[3], $m[4], $m[5]], [$m[6], $m[7], $m[8]]];
    }
}
