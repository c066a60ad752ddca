<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Plausibility;

use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Derivation\DerivedStorey;
use Plinth\Core\Plan\Derivation\Region;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Units\Length;

/** Holds a storey against what is usual. The limits are common practice, no source. */
final class Plausible
{
    private const LEAF_MM = [600.0, 1200.0];
    private const HEAD_MM = 1900.0;
    private const STOREY_MM = 2200.0;
    private const WALL_MM = [50.0, 800.0];
    /** This far beside a wall's face is in the room. */
    private const BESIDE_MM = 30.0;

    /** @return list<Doubt> by what they are about: the storey, its walls, openings and rooms */
    public static function of(Storey $storey, DerivedStorey $derived): array
    {
        $doubts = [];
        if ($storey->height < self::STOREY_MM) {
            $doubts[] = new Doubt('low-storey', $storey->id, null, \sprintf(
                '%s is %s high from floor to floor; storeys are seldom under %s.',
                '' === $storey->name ? 'The storey' : $storey->name,
                Length::told($storey->height),
                Length::told(self::STOREY_MM),
            ));
        }
        $walls = [];
        foreach ($storey->walls as $wall) {
            $walls[$wall->id] = $wall;
            array_push($doubts, ...self::wall($wall));
        }
        foreach ($storey->openings as $opening) {
            array_push($doubts, ...self::opening($opening, $walls[$opening->wall], $storey));
        }
        foreach ($derived->regions as $region) {
            if (!self::isEntered($region, $storey, $walls)) {
                $name = trim(($region->room->number ?? '').' '.($region->room->name ?? ''));
                $doubts[] = new Doubt(
                    'no-door',
                    $region->room->id ?? '',
                    $region->label,
                    \sprintf('%s has no door and no opening to walk through.', '' === $name ? 'A room without a name' : $name),
                );
            }
        }

        return $doubts;
    }

    /** @return list<Doubt> */
    private static function wall(Wall $wall): array
    {
        [$least, $most] = self::WALL_MM;
        if ($wall->thickness >= $least && $wall->thickness <= $most) {
            return [];
        }
        $isThin = $wall->thickness < $least;

        return [new Doubt($isThin ? 'thin-wall' : 'thick-wall', $wall->id, $wall->at($wall->length() / 2.0)->toArray(), \sprintf(
            'A wall is %s thick; walls are seldom %s.',
            Length::told($wall->thickness),
            ($isThin ? 'under ' : 'over ').Length::told($isThin ? $least : $most),
        ))];
    }

    /**
     * What is unusual about so wide an opening, before there is one.
     *
     * @param string $leaf how many leaves a door has
     *
     * @return array{code: string, message: string}|null
     */
    public static function width(OpeningKind $kind, string $leaf, float $mm): ?array
    {
        $each = 'double' === $leaf ? $mm / 2.0 : $mm;
        [$least, $most] = self::LEAF_MM;
        if (OpeningKind::Door !== $kind || ($each >= $least && $each <= $most)) {
            return null;
        }
        $isNarrow = $each < $least;

        return ['code' => $isNarrow ? 'narrow-door' : 'wide-door', 'message' => \sprintf(
            'A leaf of a door is %s wide; leaves are seldom %s.',
            Length::told($each),
            ($isNarrow ? 'under ' : 'over ').Length::told($isNarrow ? $least : $most),
        )];
    }

    /** @return list<Doubt> */
    private static function opening(Opening $opening, Wall $wall, Storey $storey): array
    {
        $doubts = [];
        $at = $wall->at($opening->offset + $opening->width / 2.0)->toArray();
        $width = self::width($opening->kind, $opening->leaf, $opening->width);
        if (null !== $width) {
            $doubts[] = new Doubt($width['code'], $opening->id, $at, $width['message']);
        }
        if (null === $opening->height) {
            return $doubts;
        }
        $head = $opening->sill + $opening->height;
        $top = $wall->height ?? $storey->height;
        if ($head > $top) {
            $doubts[] = new Doubt('head-over-wall', $opening->id, $at, \sprintf(
                'Its head lies at %s, above its wall, which is %s high.',
                Length::told($head),
                Length::told($top),
            ));
        } elseif ($head < self::HEAD_MM) {
            $doubts[] = new Doubt('low-head', $opening->id, $at, \sprintf(
                'Its head lies at %s; heads are seldom under %s.',
                Length::told($head),
                Length::told(self::HEAD_MM),
            ));
        }

        return $doubts;
    }

    /**
     * Whether one can walk in: by a door or a plain opening in a wall round it, or over a divider.
     *
     * @param array<string, Wall> $walls
     */
    private static function isEntered(Region $region, Storey $storey, array $walls): bool
    {
        $round = array_flip($region->walls);
        foreach ($storey->dividers as $divider) {
            if (isset($round[$divider->id])) {
                return true;
            }
        }
        foreach ($storey->openings as $opening) {
            if (OpeningKind::Window === $opening->kind || !isset($round[$opening->wall])) {
                continue;
            }
            // A long wall bounds several rooms: the door counts for those that it opens into.
            $wall = $walls[$opening->wall];
            $off = $wall->thickness / 2.0 + self::BESIDE_MM;
            foreach ([$off, -$off] as $left) {
                $beside = $wall->at($opening->offset + $opening->width / 2.0, $left);
                if (Polygon::contains($region->polygon, $beside->x, $beside->y)) {
                    return true;
                }
            }
        }

        return false;
    }
}
