<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

/**
 * What runs along a straight line or round a centre, counter-clockwise: mm along from its zero, and across to the left, which is towards
 * the centre.
 *
 * @internal
 */
final readonly class DrawnAxis
{
    /** mm: rounder than this nothing is drawn */
    private const LEAST = 1e-3;

    /**
     * @param array{float, float} $origin its zero, or the centre
     * @param array{float, float} $way unit vector along it, or from the centre to its zero
     * @param float|null $radius mm; null where it is straight
     */
    private function __construct(public array $origin, private array $way, public ?float $radius)
    {
    }

    /**
     * @param array{float, float} $origin
     * @param array{float, float} $way unit vector
     */
    public static function straight(array $origin, array $way): self
    {
        return new self($origin, $way, null);
    }

    /**
     * @param array{float, float} $centre
     * @param float $zero direction of its zero, radians
     */
    public static function round(array $centre, float $radius, float $zero): self
    {
        return new self($centre, [cos($zero), sin($zero)], $radius);
    }

    /** @return array{float, float} along and across of a place; along within half a turn of the zero */
    public function of(float $x, float $y): array
    {
        [$dx, $dy] = [$x - $this->origin[0], $y - $this->origin[1]];
        [$u, $v] = [$this->way[0] * $dx + $this->way[1] * $dy, $this->way[0] * $dy - $this->way[1] * $dx];

        return null === $this->radius ? [$u, $v] : [$this->radius * atan2($v, $u), $this->radius - hypot($u, $v)];
    }

    /** @return array{float, float} place */
    public function at(float $along, float $across = 0.0): array
    {
        if (null === $this->radius) {
            return [
                $this->origin[0] + $along * $this->way[0] - $across * $this->way[1],
                $this->origin[1] + $along * $this->way[1] + $across * $this->way[0],
            ];
        }
        $angle = $along / $this->radius;
        [$c, $s, $r] = [cos($angle), sin($angle), $this->radius - $across];

        return [
            $this->origin[0] + $r * ($c * $this->way[0] - $s * $this->way[1]),
            $this->origin[1] + $r * ($c * $this->way[1] + $s * $this->way[0]),
        ];
    }

    /** @return array{float, float} unit vector along it there */
    public function way(float $along): array
    {
        if (null === $this->radius) {
            return $this->way;
        }
        [$c, $s] = [cos($along / $this->radius), sin($along / $this->radius)];

        return [-$s * $this->way[0] - $c * $this->way[1], -$s * $this->way[1] + $c * $this->way[0]];
    }

    /** The one beside it, so far to the left. */
    public function beside(float $across): self
    {
        return null === $this->radius
            ? new self($this->at(0.0, $across), $this->way, null)
            : new self($this->origin, $this->way, max(self::LEAST, $this->radius - $across));
    }

    /** By what places along it are multiplied so far to the left. */
    public function along(float $across): float
    {
        return null === $this->radius ? 1.0 : max(self::LEAST, $this->radius - $across) / $this->radius;
    }

    /** @return list<array{float, float}> where both cross, wherever either ends */
    public function crossings(self $other): array
    {
        if (null === $this->radius) {
            return null === $other->radius ? $this->onLine($other) : $other->crossings($this);
        }
        if (null === $other->radius) {
            [$along, $across] = $other->of(...$this->origin);

            return $this->either($other->at($along), $other->way, abs($across));
        }
        // Both circles cross on their common chord, which is square to the line between their centres.
        [$dx, $dy] = [$other->origin[0] - $this->origin[0], $other->origin[1] - $this->origin[1]];
        $apart = hypot($dx, $dy);
        if ($apart < self::LEAST) {
            return [];
        }
        $to = ($apart * $apart + $this->radius ** 2 - $other->radius ** 2) / (2.0 * $apart);
        $foot = [$this->origin[0] + $to * $dx / $apart, $this->origin[1] + $to * $dy / $apart];

        return $this->either($foot, [-$dy / $apart, $dx / $apart], abs($to));
    }

    /**
     * @param array{float, float} $foot of the centre on a line
     * @param array{float, float} $way along that line
     *
     * @return list<array{float, float}>
     */
    private function either(array $foot, array $way, float $off): array
    {
        $half = ($this->radius ?? 0.0) ** 2 - $off * $off;
        if ($half < 0.0) {
            return [];
        }
        $half = sqrt($half);

        return [
            [$foot[0] + $half * $way[0], $foot[1] + $half * $way[1]],
            [$foot[0] - $half * $way[0], $foot[1] - $half * $way[1]],
        ];
    }

    /** @return list<array{float, float}> */
    private function onLine(self $other): array
    {
        $sine = $this->way[0] * $other->way[1] - $this->way[1] * $other->way[0];
        if (abs($sine) < 1e-9) {
            return [];
        }
        [, $across] = $other->of(...$this->origin);

        return [$this->at($across / $sine)];
    }
}
