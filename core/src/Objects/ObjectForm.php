<?php

declare(strict_types=1);

namespace Plinth\Core\Objects;

/**
 * An object of true size about its own middle, its front towards −y: the boxes that it is made of.
 *
 * @phpstan-type Box array{float, float, float, float, float, float}
 */
final readonly class ObjectForm
{
    /** @var list<Box> xmin, ymin, zmin, xmax, ymax, zmax, mm */
    public array $boxes;

    public function __construct(ObjectKind $kind, float $width, float $depth, float $height)
    {
        $boxes = [];
        foreach ($kind->boxes() as [$x, $y, $z]) {
            [$x1, $x2] = self::reach($x, $width);
            [$y1, $y2] = self::reach($y, $depth);
            [$z1, $z2] = self::reach($z, $height);
            // What is typed very small has no room for all of its parts.
            if ($x2 - $x1 > 1.0 && $y2 - $y1 > 1.0 && $z2 - $z1 > 1.0) {
                $boxes[] = [$x1 - $width / 2.0, $y1 - $depth / 2.0, $z1, $x2 - $width / 2.0, $y2 - $depth / 2.0, $z2];
            }
        }
        $this->boxes = [] === $boxes ? [[-$width / 2.0, -$depth / 2.0, 0.0, $width / 2.0, $depth / 2.0, $height]] : $boxes;
    }

    /**
     * @param array{float, float, float, float} $part
     *
     * @return array{float, float} within its size
     */
    private static function reach(array $part, float $size): array
    {
        return [
            max(0.0, min($size, $part[0] * $size + $part[1])),
            max(0.0, min($size, $part[2] * $size + $part[3])),
        ];
    }

    /** @return list<non-empty-list<array{float, float}>> rings seen from above, counter-clockwise, the highest last */
    public function plan(): array
    {
        $boxes = $this->boxes;
        usort($boxes, static fn (array $a, array $b): int => $a[5] <=> $b[5]);

        return array_map(static fn (array $b): array => [[$b[0], $b[1]], [$b[3], $b[1]], [$b[3], $b[4]], [$b[0], $b[4]]], $boxes);
    }

    /** @return list<non-empty-list<array{float, float}>> rings seen from the front, the nearest last */
    public function front(): array
    {
        $boxes = $this->boxes;
        usort($boxes, static fn (array $a, array $b): int => $b[1] <=> $a[1]);

        return array_map(static fn (array $b): array => [[$b[0], $b[2]], [$b[3], $b[2]], [$b[3], $b[5]], [$b[0], $b[5]]], $boxes);
    }
}
