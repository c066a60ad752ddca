<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\GeoJson;

use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Derivation\DerivedStorey;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Site\Georeference;

/**
 * Rooms, walls and the site as GeoJSON. Where the plan lies in a projected reference, in that one, named as GeoJSON 2008 has it (`crs`);
 * otherwise in metres of the plan, which no map knows, and says so: RFC 7946 has no other way for either.
 *
 * @phpstan-type Ring non-empty-list<array{float, float}>
 */
final readonly class GeoJsonWriter
{
    private function __construct(private ?Georeference $georeference)
    {
    }

    /**
     * @param list<Contour> $boundaries of the site
     * @param list<string> $remarks what whoever reads it should know
     */
    public static function write(Plan $plan, array $boundaries = [], ?Georeference $georeference = null, array $remarks = []): string
    {
        $writer = new self($georeference);
        $features = [];
        foreach ($plan->storeys as $storey) {
            $derived = Derivation::of($storey);
            foreach ($derived->regions as $region) {
                $features[] = self::feature([
                    'what' => 'room', 'storey' => $storey->name,
                    'number' => $region->room->number ?? '', 'name' => $region->room->name ?? '',
                    'netAreaM2' => round($region->netAreaMm2 / 1e6, 4),
                ], $writer->polygons(Overlay::difference(
                    // A divider that ends within a room goes there and back, which is no valid ring.
                    [$region->polygon],
                    array_map(static fn (array $hole): array => array_reverse($hole), $region->holes),
                )));
            }
            foreach ($storey->walls as $wall) {
                $rings = self::bodies($derived, $wall->id);
                if ([] !== $rings) {
                    $features[] = self::feature([
                        'what' => 'wall', 'storey' => $storey->name, 'id' => $wall->id, 'thicknessMm' => $wall->thickness,
                        'elevationMm' => $storey->elevation,
                    ], $writer->polygons($rings));
                }
            }
        }
        foreach ($boundaries as $boundary) {
            $features[] = self::feature(
                ['what' => 'site', 'areaM2' => round(abs($boundary->area()) / 1e6, 4)],
                $writer->polygon([$boundary->points()]),
            );
        }
        $named = null === $georeference ? [] : [
            'crs' => ['type' => 'name', 'properties' => ['name' => self::urn($georeference->reference)]],
        ];
        $remarks = null === $georeference ? [...$remarks, 'Coordinates are metres of the plan, in no geographic reference.'] : $remarks;

        return json_encode(
            ['type' => 'FeatureCollection', ...$named, 'remarks' => $remarks, 'features' => $features],
            \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES,
        );
    }

    /** @return list<array{outer: Ring, holes: list<Ring>}> what a wall covers of the plan, without its openings */
    private static function bodies(DerivedStorey $derived, string $wall): array
    {
        $rings = ($derived->walls[$wall] ?? null)?->bodies() ?? [];

        return [] === $rings ? [] : Overlay::difference($rings, $derived->cutOuts($wall));
    }

    /** `EPSG:25832` is `urn:ogc:def:crs:EPSG::25832` (OGC 06-023r1). */
    private static function urn(string $reference): string
    {
        return 1 === preg_match('/^EPSG:(\d+)$/', $reference, $m) ? "urn:ogc:def:crs:EPSG::$m[1]" : $reference;
    }

    /**
     * @param array<string, string|float> $properties
     * @param array<string, mixed> $geometry
     *
     * @return array<string, mixed>
     */
    private static function feature(array $properties, array $geometry): array
    {
        return ['type' => 'Feature', 'properties' => $properties, 'geometry' => $geometry];
    }

    /**
     * @param list<array{outer: Ring, holes: list<Ring>}> $shapes
     *
     * @return array<string, mixed>
     */
    private function polygons(array $shapes): array
    {
        $coordinates = array_map(fn (array $s): array => $this->polygon([$s['outer'], ...$s['holes']])['coordinates'], $shapes);

        return 1 === \count($coordinates)
            ? ['type' => 'Polygon', 'coordinates' => $coordinates[0]]
            : ['type' => 'MultiPolygon', 'coordinates' => $coordinates];
    }

    /**
     * @param non-empty-list<Ring> $rings the outer one, then holes, either way round
     *
     * @return array{type: string, coordinates: list<list<array{float, float}>>}
     */
    private function polygon(array $rings): array
    {
        $coordinates = [];
        foreach ($rings as $i => $ring) {
            $placed = array_map($this->placed(...), $ring);
            // The outer one counter-clockwise, holes clockwise (RFC 7946, 3.1.6), and the first place once more at the end.
            $isLeft = 0.0 < array_sum(array_map(static function (array $p, int $k) use ($placed): float {
                $q = $placed[($k + 1) % \count($placed)];

                return ($p[0] - $placed[0][0]) * ($q[1] - $placed[0][1]) - ($q[0] - $placed[0][0]) * ($p[1] - $placed[0][1]);
            }, $placed, array_keys($placed)));
            $placed = $isLeft === (0 === $i) ? $placed : array_reverse($placed);
            $coordinates[] = [...$placed, $placed[0]];
        }

        return ['type' => 'Polygon', 'coordinates' => $coordinates];
    }

    /**
     * @param array{float, float} $mm
     *
     * @return array{float, float} m, to a hundredth of a millimetre
     */
    private function placed(array $mm): array
    {
        [$x, $y] = null === $this->georeference ? [$mm[0] / 1000.0, $mm[1] / 1000.0] : $this->georeference->of(new Point(...$mm));

        return [round($x, 8), round($y, 8)];
    }
}
