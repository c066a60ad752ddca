<?php

declare(strict_types=1);

namespace Plinth\Core\Escape;

use Plinth\Core\Plan\Model\DoorExit;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;

/** An opening that one may walk through, between its jambs; in a curved wall along its chord. */
final readonly class Doorway
{
    /** Higher than a threshold is, one climbs. */
    private const THRESHOLD_MM = 50.0;
    /** mm beyond the jambs in which a way still passes it */
    private const BESIDE = 1.0;

    /**
     * @param array{array{float, float}, array{float, float}} $right its side on the right of its wall, along it
     * @param array{array{float, float}, array{float, float}} $left the one on its left, along it too
     */
    private function __construct(public Opening $opening, public array $right, public array $left)
    {
    }

    /** @param non-empty-list<array{float, float}> $ring what it cuts out in plan: along its right side, and back along its left */
    public static function of(Opening $opening, array $ring): ?self
    {
        if (OpeningKind::Window === $opening->kind || $opening->sill > self::THRESHOLD_MM) {
            return null;
        }
        $n = intdiv(\count($ring), 2);

        return new self($opening, [$ring[0], $ring[$n - 1]], [$ring[2 * $n - 1], $ring[$n]]);
    }

    /** @return non-empty-list<array{float, float}> counter-clockwise */
    public function ring(): array
    {
        return [...$this->right, $this->left[1], $this->left[0]];
    }

    /** @return array{array{float, float}, array{float, float}} in the middle of its right side, and of its left one */
    public function middles(): array
    {
        return [self::between(...$this->right), self::between(...$this->left)];
    }

    public function isExit(): bool
    {
        return DoorExit::None !== $this->opening->exit;
    }

    /**
     * Where a straight stretch of a way passes it, as a part of that, and which way: 1 to its left, −1 to its right.
     *
     * @param array{float, float} $from
     * @param array{float, float} $to
     *
     * @return array{float, int}|null null where it does not
     */
    public function passed(array $from, array $to): ?array
    {
        [$a, $b] = [self::between($this->right[0], $this->left[0]), self::between($this->right[1], $this->left[1])];
        $length = hypot($b[0] - $a[0], $b[1] - $a[1]);
        [$ux, $uy] = [($b[0] - $a[0]) / $length, ($b[1] - $a[1]) / $length];
        $s = $ux * ($from[1] - $a[1]) - $uy * ($from[0] - $a[0]);
        $t = $ux * ($to[1] - $a[1]) - $uy * ($to[0] - $a[0]);
        if ($s > 0.0 === $t > 0.0) {
            return null;
        }
        $part = $s / ($s - $t);
        $along = $ux * ($from[0] + $part * ($to[0] - $from[0]) - $a[0]) + $uy * ($from[1] + $part * ($to[1] - $from[1]) - $a[1]);

        return $along < -self::BESIDE || $along > $length + self::BESIDE ? null : [$part, $t > $s ? 1 : -1];
    }

    /**
     * Whether its leaf opens against who passes it.
     *
     * @param int $passed to its left 1, to its right −1
     */
    public function isAgainst(int $passed): bool
    {
        return OpeningKind::Door === $this->opening->kind && 'sliding' !== $this->opening->leaf
            && $passed === ('left' === $this->opening->swing ? -1 : 1);
    }

    /**
     * @param array{float, float} $a
     * @param array{float, float} $b
     *
     * @return array{float, float}
     */
    private static function between(array $a, array $b): array
    {
        return [($a[0] + $b[0]) / 2.0, ($a[1] + $b[1]) / 2.0];
    }
}
