<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\DBAL\Connection;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Exchange\PlanDocument\PlanWriter;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Derivation\Region;
use Plinth\Core\Plan\Derivation\TracedRoom;
use Plinth\Core\Plan\Derivation\Unplaced;
use Plinth\Core\Plan\Derivation\WallShape;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Wall as CoreWall;
use Plinth\Core\Plan\Network\Effort;
use Plinth\Core\Plan\Network\Neighbourhood;
use Plinth\Server\Change\Deadline;
use Plinth\Server\Change\Raw;
use Plinth\Server\Change\RowId;
use Symfony\Component\Uid\Uuid;

/**
 * Derived shapes of storeys, each with the revision it belongs to: what an edit touches is derived anew, and clients are
 * told what differs.
 *
 * @phpstan-import-type Box from Neighbourhood
 *
 * @phpstan-type Shape array{kind: string, name: string, area: float, columns: float, shape: string|null}
 */
final readonly class DerivedShapes
{
    /** Beyond so many lines the whole storey is derived: it costs less than piece by piece. */
    private const MOST_TOUCHED = 80;
    private const AT_ONCE = 200;
    /** near a second's work: forty walls near each of fifty thousand */
    private const MOST_PAIRS = 2_000_000;

    public function __construct(private Connection $connection, private Deadline $deadline)
    {
    }

    /** Derives what a change of the storey has touched; the whole of it where it never was or too much of it was touched. */
    public function update(RowId $storey, int $revision, TouchedLines $touched): void
    {
        $near = new StoreyNear($this->connection, $storey);
        if (\count($touched->boxes) > self::MOST_TOUCHED || !$this->isDerived($storey)) {
            $this->deriveWhole($storey, $near, $revision);
        } else {
            $this->derivePart($storey, $near, $revision, $touched);
        }
        $this->connection->executeStatement(
            'INSERT INTO derived_storey (project, storey, revision, walls, regions, columns)
             SELECT ?, ?, ?, COALESCE(SUM(IF(kind = \'walls\', area, 0)), 0), COALESCE(SUM(IF(kind = \'regions\', area, 0)), 0), COALESCE(SUM(columns), 0) FROM derived_shape WHERE project = ? AND storey = ?
             ON DUPLICATE KEY UPDATE revision = VALUES(revision), walls = VALUES(walls), regions = VALUES(regions), columns = VALUES(columns)',
            [...$storey->binary(), $revision, ...$storey->binary()],
        );
    }

    /**
     * JSON of a storey's shapes: those that differ since a revision, or all.
     */
    public function json(RowId $storey, ?int $since): string
    {
        $key = $storey->binary();
        $told = ['walls' => [], 'regions' => [], 'unplaced' => []];
        $removed = ['walls' => [], 'regions' => [], 'unplaced' => []];
        $rows = null === $since
            ? $this->connection->iterateNumeric(
                'SELECT kind, name, shape FROM derived_shape WHERE project = ? AND storey = ? AND shape IS NOT NULL',
                $key,
            )
            : $this->connection->iterateNumeric(
                'SELECT kind, name, shape FROM derived_shape WHERE project = ? AND storey = ? AND revision > ?',
                [...$key, $since],
            );
        foreach ($rows as [$kind, $name, $shape]) {
            $kind = Raw::text($kind);
            if (null === $shape) {
                $removed[$kind][] = Raw::text($name);
            } else {
                $told[$kind][] = Raw::text($shape);
            }
        }
        $sums = $this->connection->fetchNumeric(
            'SELECT regions, walls + columns FROM derived_storey WHERE project = ? AND storey = ?',
            $key,
        );
        [$net, $structure] = array_map(static fn (mixed $mm2): float => Raw::number($mm2) / 1e6, false === $sums ? [0.0, 0.0] : $sums);
        $head = [
            'storey' => $storey->id->toRfc4122(),
            'whole' => null === $since,
            'areas' => ['grossFloorM2' => $net + $structure, 'netFloorM2' => $net, 'structureM2' => $structure],
            'removed' => $removed,
        ];

        return substr(json_encode($head, \JSON_THROW_ON_ERROR), 0, -1).implode(
            '',
            array_map(static fn (string $kind): string => ',"'.$kind.'":['.implode(',', $told[$kind]).']', array_keys($told)),
        ).'}';
    }

    /** @return list<TracedRoom> the regions of a storey as they are kept */
    public function rooms(RowId $storey): array
    {
        $rooms = [];
        foreach ($this->connection->iterateNumeric(
            "SELECT d.shape, r.number, r.name FROM derived_shape d LEFT JOIN room r ON r.project = d.project AND r.id = UNHEX(REPLACE(JSON_VALUE(d.shape, '$.id'), '-', '')) WHERE d.project = ? AND d.storey = ? AND d.kind = 'regions' AND d.shape IS NOT NULL",
            $storey->binary(),
        ) as [$shape, $number, $name]) {
            $region = JsonValue::parse(Raw::text($shape));
            $rooms[] = new TracedRoom(
                $region->get('key')->text(),
                $region->optional('id')?->text(),
                Raw::text($number),
                Raw::text($name),
                $region->get('netAreaM2')->number(),
                $region->get('clear')->pair(),
            );
        }

        return $rooms;
    }

    /** @return string a name for a storey's shapes as they are now: while it is the same, so are they */
    public function version(RowId $storey): string
    {
        $row = $this->connection->fetchNumeric(
            'SELECT d.revision, c.id FROM derived_storey d LEFT JOIN project_change c ON c.project = d.project AND c.revision = d.revision WHERE d.project = ? AND d.storey = ?',
            $storey->binary(),
        );

        return false === $row ? '' : Raw::text($row[0]).'.'.bin2hex(Raw::text($row[1]));
    }

    /** @return list<Uuid> storeys of a project whose shapes were derived after a revision */
    public function changedSince(Uuid $project, int $revision): array
    {
        return array_map(
            static fn (mixed $id): Uuid => Uuid::fromBinary(Raw::text($id)),
            $this->connection->fetchFirstColumn(
                'SELECT d.storey FROM derived_storey d JOIN storey s ON s.project = d.project AND s.id = d.storey WHERE d.project = ? AND d.revision > ?',
                [$project->toBinary(), $revision],
            ),
        );
    }

    private function effort(): Effort
    {
        return new Effort(self::MOST_PAIRS, $this->deadline->check(...));
    }

    private function isDerived(RowId $storey): bool
    {
        return false !== $this->connection->fetchOne(
            'SELECT revision FROM derived_storey WHERE project = ? AND storey = ?',
            $storey->binary(),
        );
    }

    private function derivePart(RowId $storey, StoreyNear $near, int $revision, TouchedLines $touched): void
    {
        $derivation = new Derivation($near, $this->effort());
        $affected = $derivation->affected(array_values($touched->boxes));
        $derivation->look(array_map(static fn (CoreWall $line): array => $line->box(), array_values($touched->reshaped)));
        $shapes = array_map(
            self::ofWall(...),
            array_values($derivation->shapes(array_values(array_unique([...$affected, ...array_keys($touched->reshaped)])))),
        );
        foreach ($touched->removed as $id) {
            $shapes[] = self::gone('walls', $id);
        }
        $old = $this->regionsBoundBy($storey, [...$affected, ...$touched->removed]);
        $lost = $this->lostTheirInside($storey, $old, $affected, $touched);
        $derivation->look($touched->seen);
        $told = $derivation->regionsOf([...$affected, ...$lost], $touched->points);
        foreach ($told['holding'] as [$point, $lines]) {
            $old = array_values(array_unique([...$old, ...$this->regionsAt($storey, $point, $lines)]));
        }
        foreach (array_diff($old, array_keys($told['regions'])) as $key) {
            $shapes[] = self::gone('regions', $key);
        }
        $known = $this->knownRegions($storey, array_keys($told['regions']));
        $unplaced = $this->unplacedRooms($storey, $old, $touched);
        foreach ($told['regions'] as $key => $region) {
            if (!\in_array($key, $known, true)) {
                $shapes[] = self::ofRegion($region);
            }
        }
        foreach ($this->roomsBy($near, $unplaced) as $id => $room) {
            $place = null === $room ? null : $derivation->place($room);
            $shapes[] = $place instanceof Unplaced ? self::ofUnplaced($place) : self::gone('unplaced', $id);
        }
        $this->write($storey, $revision, $shapes);
        $this->bind(
            $storey,
            array_values(array_filter($told['regions'], static fn (Region $r): bool => !\in_array($r->key, $known, true))),
            array_diff($old, array_keys($told['regions'])),
        );
    }

    private function deriveWhole(RowId $storey, StoreyNear $near, int $revision): void
    {
        $derivation = new Derivation($near, $this->effort());
        [$walls, $regions, $unplaced] = $derivation->everything();
        $shapes = [
            ...array_map(self::ofWall(...), array_values($walls)),
            ...array_map(self::ofRegion(...), $regions),
            ...array_map(self::ofUnplaced(...), $unplaced),
        ];
        $names = array_flip(array_map(static fn (array $s): string => $s['kind'].$s['name'], $shapes));
        $known = [];
        foreach ($this->connection->iterateNumeric(
            'SELECT kind, name, shape FROM derived_shape WHERE project = ? AND storey = ? AND shape IS NOT NULL',
            $storey->binary(),
        ) as [$kind, $name, $shape]) {
            $known[Raw::text($kind).Raw::text($name)] = $shape;
            if (!isset($names[Raw::text($kind).Raw::text($name)])) {
                $shapes[] = self::gone(Raw::text($kind), Raw::text($name));
            }
        }
        // What is as it was keeps its revision.
        $this->write(
            $storey,
            $revision,
            array_values(array_filter($shapes, static fn (array $s): bool => ($known[$s['kind'].$s['name']] ?? null) !== $s['shape'])),
        );
        $this->connection->executeStatement('DELETE FROM region_line WHERE project = ? AND storey = ?', $storey->binary());
        $this->bind($storey, $regions, []);
    }

    /**
     * @param list<string> $lines
     *
     * @return list<string> keys
     */
    private function regionsBoundBy(RowId $storey, array $lines): array
    {
        return $this->column(
            'SELECT DISTINCT region FROM region_line WHERE project = ? AND storey = ? AND line IN',
            $storey,
            array_map(self::binary(...), $lines),
        );
    }

    /**
     * Regions that lost what stood free inside them are bounded by nothing that is affected beside that: a line of each.
     *
     * @param list<string> $regions keys
     * @param list<string> $affected
     *
     * @return list<string> ids
     */
    private function lostTheirInside(RowId $storey, array $regions, array $affected, TouchedLines $touched): array
    {
        $still = array_diff($affected, $touched->lines);
        $found = [];
        foreach ($regions as $region) {
            $lines = $this->linesOf($storey, [$region]);
            if ([] === array_intersect($lines, $still)) {
                $found = [...$found, ...\array_slice(array_values(array_diff($lines, $touched->removed, $touched->lines)), 0, 1)];
            }
        }
        if ([] !== $found) {
            // They may lie anywhere: what is near them is taken in.
            foreach ($this->connection->iterateNumeric(
                'SELECT x_min, y_min, x_max, y_max FROM wall WHERE project = ? AND id IN ('.implode(
                    ',',
                    array_fill(0, \count($found), '?'),
                ).')',
                [$storey->project->toBinary(), ...array_map(self::binary(...), $found)],
            ) as [$x1, $y1, $x2, $y2]) {
                $touched->seen[] = [Raw::number($x1), Raw::number($y1), Raw::number($x2), Raw::number($y2)];
            }
        }

        return $found;
    }

    /**
     * Regions bounded by one of the lines that hold a point.
     *
     * @param list<string> $lines
     *
     * @return list<string> keys
     */
    private function regionsAt(RowId $storey, Point $point, array $lines): array
    {
        $keys = [];
        foreach ($this->column(
            "SELECT shape FROM derived_shape WHERE project = ? AND storey = ? AND kind = 'regions' AND shape IS NOT NULL AND name IN",
            $storey,
            $this->regionsBoundBy($storey, $lines),
        ) as $text) {
            $shape = JsonValue::parse($text);
            $ring = array_map(static fn (JsonValue $p): array => $p->pair(), $shape->list('polygon'));
            if (Polygon::contains($ring, $point->x, $point->y)) {
                $keys[] = $shape->get('key')->text();
            }
        }

        return $keys;
    }

    /**
     * @param list<string> $keys
     *
     * @return list<string> those that are kept as they are
     */
    private function knownRegions(RowId $storey, array $keys): array
    {
        return $this->column(
            "SELECT name FROM derived_shape WHERE project = ? AND storey = ? AND kind = 'regions' AND shape IS NOT NULL AND name IN",
            $storey,
            $keys,
        );
    }

    /**
     * @param list<string> $regions
     *
     * @return list<string> ids
     */
    private function linesOf(RowId $storey, array $regions): array
    {
        return array_map(
            Raw::id(...),
            $this->column('SELECT DISTINCT line FROM region_line WHERE project = ? AND storey = ? AND region IN', $storey, $regions),
        );
    }

    /**
     * @param list<string> $in
     *
     * @return list<string>
     */
    private function column(string $sql, RowId $storey, array $in): array
    {
        return [] === $in ? [] : array_map(
            Raw::text(...),
            $this->connection->fetchFirstColumn(
                $sql.' ('.implode(',', array_fill(0, \count($in), '?')).')',
                [...$storey->binary(), ...$in],
            ),
        );
    }

    /**
     * Rooms whose place may be another: those touched, those that nothing enclosed, and those of regions that may be gone.
     *
     * @param list<string> $regions
     *
     * @return list<string> ids
     */
    private function unplacedRooms(RowId $storey, array $regions, TouchedLines $touched): array
    {
        $ids = array_fill_keys($touched->rooms, true);
        foreach ($this->connection->iterateNumeric(
            "SELECT name FROM derived_shape WHERE project = ? AND storey = ? AND kind = 'unplaced' AND shape IS NOT NULL",
            $storey->binary(),
        ) as [$id]) {
            $ids[Raw::text($id)] = true;
        }
        foreach ($this->column(
            "SELECT shape FROM derived_shape WHERE project = ? AND storey = ? AND kind = 'regions' AND shape IS NOT NULL AND name IN",
            $storey,
            $regions,
        ) as $shape) {
            $region = json_decode($shape, true);
            if (\is_array($region) && \is_string($region['id'] ?? null)) {
                $ids[$region['id']] = true;
            }
            foreach (\is_array($region) && \is_array($region['findings'] ?? null) ? $region['findings'] : [] as $finding) {
                foreach (\is_array($finding) && \is_array($finding['things'] ?? null) ? $finding['things'] : [] as $id) {
                    if (\is_string($id)) {
                        $ids[$id] = true;
                    }
                }
            }
        }

        return array_map(strval(...), array_keys($ids));
    }

    /**
     * @param list<string> $ids
     *
     * @return array<string, Room|null>
     */
    private function roomsBy(StoreyNear $near, array $ids): array
    {
        $rooms = array_fill_keys($ids, null);
        foreach ($near->rooms([-\INF, -\INF, \INF, \INF]) as $room) {
            if (\array_key_exists($room->id, $rooms)) {
                $rooms[$room->id] = $room;
            }
        }

        return $rooms;
    }

    /** @param list<Shape> $shapes */
    private function write(RowId $storey, int $revision, array $shapes): void
    {
        foreach (array_chunk($shapes, self::AT_ONCE) as $some) {
            $values = [];
            foreach ($some as $s) {
                array_push($values, ...$storey->binary(), ...[$s['kind'], $s['name'], $revision, $s['area'], $s['columns'], $s['shape']]);
            }
            $this->connection->executeStatement(
                'INSERT INTO derived_shape (project, storey, kind, name, revision, area, columns, shape) VALUES '.implode(
                    ',',
                    array_fill(0, \count($some), '(?,?,?,?,?,?,?,?)'),
                )
                .' ON DUPLICATE KEY UPDATE revision = VALUES(revision), area = VALUES(area), columns = VALUES(columns), shape = VALUES(shape)',
                $values,
            );
        }
    }

    /**
     * @param list<Region> $new
     * @param array<string> $gone keys
     */
    private function bind(RowId $storey, array $new, array $gone): void
    {
        if ([] !== $gone) {
            $this->connection->executeStatement(
                'DELETE FROM region_line WHERE project = ? AND storey = ? AND region IN ('.implode(
                    ',',
                    array_fill(0, \count($gone), '?'),
                ).')',
                [...$storey->binary(), ...array_values($gone)],
            );
        }
        $rows = [];
        foreach ($new as $region) {
            foreach ($region->walls as $line) {
                $rows[] = [...$storey->binary(), self::binary($line), $region->key];
            }
        }
        foreach (array_chunk($rows, 2 * self::AT_ONCE) as $some) {
            $this->connection->executeStatement(
                'INSERT IGNORE INTO region_line (project, storey, line, region) VALUES '.implode(
                    ',',
                    array_fill(0, \count($some), '(?,?,?,?)'),
                ),
                array_merge(...$some),
            );
        }
    }

    private static function binary(string $id): string
    {
        return Uuid::fromString($id)->toBinary();
    }

    /** @return Shape */
    private static function ofWall(WallShape $shape): array
    {
        return [
            'kind' => 'walls',
            'name' => $shape->id,
            'area' => $shape->areaMm2,
            'columns' => 0.0,
            'shape' => self::text(PlanWriter::wall($shape)),
        ];
    }

    /** @return Shape */
    private static function ofRegion(Region $region): array
    {
        return [
            'kind' => 'regions',
            'name' => $region->key,
            'area' => $region->netAreaMm2,
            'columns' => $region->columnsMm2,
            'shape' => self::text(PlanWriter::region($region)),
        ];
    }

    /** @return Shape */
    private static function ofUnplaced(Unplaced $place): array
    {
        return [
            'kind' => 'unplaced',
            'name' => $place->room->id,
            'area' => 0.0,
            'columns' => 0.0,
            'shape' => self::text(PlanWriter::unplaced($place)),
        ];
    }

    /** @return Shape */
    private static function gone(string $kind, string $name): array
    {
        return ['kind' => $kind, 'name' => $name, 'area' => 0.0, 'columns' => 0.0, 'shape' => null];
    }

    /** @param array<string, mixed> $data */
    private static function text(array $data): string
    {
        return json_encode($data, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE);
    }
}
