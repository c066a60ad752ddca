<?php

declare(strict_types=1);

namespace Plinth\Core\Geometry;

/** Something laid elsewhere in its plane as it is: shifted, turned, or turned over about a line. Lengths stay. */
final readonly class Motion
{
    /**
     * A point (x, y) comes to lie at (a x + b y + c, d x + e y + f).
     *
     * @param bool $turnsOver whether left and right change places
     */
    private function __construct(
        private float $a,
        private float $b,
        private float $c,
        private float $d,
        private float $e,
        private float $f,
        public bool $turnsOver,
    ) {
    }

    public static function shift(float $dx, float $dy): self
    {
        return new self(1.0, 0.0, $dx, 0.0, 1.0, $dy, false);
    }

    /** @param float $degrees counter-clockwise; quarters are exact */
    public static function turn(Point $about, float $degrees): self
    {
        $quarter = fmod($degrees, 90.0);
        $quarters = ((int) round($degrees / 90.0) % 4 + 4) % 4;
        [$cos, $sin] = 0.0 === $quarter
            ? [[1.0, 0.0, -1.0, 0.0][$quarters], [0.0, 1.0, 0.0, -1.0][$quarters]]
            : [cos(deg2rad($degrees)), sin(deg2rad($degrees))];

        return self::about($about, $cos, -$sin, $sin, $cos, false);
    }

    /** Over a line through two points: the reflection with the matrix (cos 2α, sin 2α; sin 2α, −cos 2α), α the line's direction. */
    public static function mirror(Point $on, Point $other): self
    {
        [$dx, $dy] = [$other->x - $on->x, $other->y - $on->y];
        $square = $dx * $dx + $dy * $dy;
        [$cos, $sin] = [($dx * $dx - $dy * $dy) / $square, 2.0 * $dx * $dy / $square];

        return self::about($on, $cos, $sin, $sin, -$cos, true);
    }

    public function of(Point $p): Point
    {
        return new Point($this->a * $p->x + $this->b * $p->y + $this->c, $this->d * $p->x + $this->e * $p->y + $this->f);
    }

    /** The rise of an arc, positive to its left, once it lies there. */
    public function rise(float $rise): float
    {
        return $this->turnsOver && 0.0 !== $rise ? -$rise : $rise;
    }

    /** @param float $degrees a direction, counter-clockwise from x */
    public function direction(float $degrees): float
    {
        $turned = rad2deg(atan2($this->d, $this->a));

        return $this->turnsOver ? $turned - $degrees : $turned + $degrees;
    }

    /** This one after another. */
    public function after(self $first): self
    {
        return new self(
            $this->a * $first->a + $this->b * $first->d,
            $this->a * $first->b + $this->b * $first->e,
            $this->a * $first->c + $this->b * $first->f + $this->c,
            $this->d * $first->a + $this->e * $first->d,
            $this->d * $first->b + $this->e * $first->e,
            $this->d * $first->c + $this->e * $first->f + $this->f,
            $this->turnsOver !== $first->turnsOver,
        );
    }

    private static function about(Point $p, float $a, float $b, float $d, float $e, bool $turnsOver): self
    {
        return new self($a, $b, $p->x - $a * $p->x - $b * $p->y, $d, $e, $p->y - $d * $p->x - $e * $p->y, $turnsOver);
    }
}
