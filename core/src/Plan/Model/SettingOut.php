<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

/**
 * What a storey is set out by, beside what is traced: axes, columns, boundaries; mm.
 *
 * @phpstan-type Ring list<array{float, float}>
 * @phpstan-type Axis array{label: string, along: 'x'|'y', at: float}
 */
final readonly class SettingOut
{
    /**
     * @param list<Axis> $axes those spaced along x run up the drawing
     * @param list<Ring> $columns outlines
     * @param list<Ring> $boundaries
     */
    public function __construct(public array $axes = [], public array $columns = [], public array $boundaries = [])
    {
    }

    /**
     * Outline of a column about its centre; a round one as a polygon within a hundredth of its radius.
     *
     * @return non-empty-list<array{float, float}>
     */
    public static function column(float $x, float $y, float $width, float $depth, bool $round): array
    {
        if (!$round) {
            return [
                [$x - $width / 2, $y - $depth / 2],
                [$x + $width / 2, $y - $depth / 2],
                [$x + $width / 2, $y + $depth / 2],
                [$x - $width / 2, $y + $depth / 2],
            ];
        }

        return array_map(
            static fn (int $k): array => [$x + $width / 2 * cos($k * \M_PI / 16), $y + $depth / 2 * sin($k * \M_PI / 16)],
            range(0, 31),
        );
    }
}
