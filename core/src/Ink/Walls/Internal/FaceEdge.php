<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

/**
 * Where a wall's face lies in a profile across it: the edge of solid ink where it passes half of its darkness, or the middle of the
 * line that is drawn along the face.
 *
 * @internal
 */
final readonly class FaceEdge
{
    /** What is inside is solid when it is as dark as this part of what is at the face. */
    private const SOLID = 0.8;

    /**
     * @param float $at sample
     * @param bool $isLine the middle of a line, otherwise the edge of a surface
     * @param float $strength grey levels by which it stands out
     */
    private function __construct(public float $at, public bool $isLine, public float $strength)
    {
    }

    /**
     * @param list<float> $profile darkness over paper
     * @param float $near sample near which the face is looked for
     * @param int $inward the way into the wall: 1 or −1
     * @param float $within samples to either side
     * @param float $pen samples that a line is wide at most
     * @param float $inside darkness of the wall's inside
     * @param bool|null $isLine what it must be, where that is known
     */
    public static function near(
        array $profile,
        float $near,
        int $inward,
        float $within,
        float $pen,
        float $inside,
        float $faintest,
        ?bool $isLine = null,
    ): ?self {
        $n = \count($profile);
        [$a, $b] = [max(1, (int) floor($near - $within)), min($n - 2, (int) ceil($near + $within))];
        $best = null;
        $most = 0.0;
        for ($k = $a; $k <= $b; ++$k) {
            $rise = $inward * ($profile[min($n - 1, max(0, $k + 1))] - $profile[max(0, min($n - 1, $k - 1))]);
            // Nearer ones first, when they are nearly as strong.
            $worth = $rise * (1.0 - 0.4 * abs($k - $near) / max(1.0, $within));
            if ($worth > $most) {
                [$best, $most] = [$k, $worth];
            }
        }
        if (null === $best) {
            return null;
        }
        $peak = $best;
        $steps = (int) ceil($pen);
        for ($i = 0; $i <= $steps; ++$i) {
            $k = $best + $inward * $i;
            if ($k < 0 || $k >= $n) {
                break;
            }
            if ($profile[$k] > $profile[$peak]) {
                $peak = $k;
            } elseif ($profile[$k] < 0.6 * $profile[$peak]) {
                break;
            }
        }
        $top = $profile[$peak];
        $outside = \INF;
        for ($i = 1; $i <= max(3, $steps); ++$i) {
            $k = $best - $inward * $i;
            if ($k >= 0 && $k < $n) {
                $outside = min($outside, $profile[$k]);
            }
        }
        $outside = \is_infinite($outside) ? 0.0 : $outside;
        if ($top - $outside < $faintest) {
            return null;
        }
        $isLine ??= $inside < self::SOLID * $top;
        if (!$isLine) {
            // Solid ink's own darkness, not the dark rim that sharpening leaves.
            $level = ($outside + min($top, max($inside, 0.6 * $top))) / 2.0;
            $at = self::crossing($profile, $peak, -$inward, $level);

            return null === $at ? null : new self($at, false, $top - $outside);
        }
        $outer = self::crossing($profile, $peak, -$inward, ($top + $outside) / 2.0);
        $inner = self::crossing($profile, $peak, $inward, ($top + min($inside, 0.9 * $top)) / 2.0, $pen);
        if (null === $outer || null === $inner) {
            return null;
        }

        return new self(($outer + $inner) / 2.0, true, $top - $outside);
    }

    /** @param list<float> $profile */
    private static function crossing(array $profile, int $from, int $way, float $level, float $most = 40.0): ?float
    {
        $n = \count($profile);
        for ($i = 0; $i <= $most; ++$i) {
            $k = $from + $way * $i;
            $next = $k + $way;
            if ($k < 0 || $next < 0 || $k >= $n || $next >= $n) {
                return null;
            }
            if ($profile[$k] >= $level && $profile[$next] < $level) {
                return $k + $way * ($profile[$k] - $level) / ($profile[$k] - $profile[$next]);
            }
        }

        return null;
    }
}
