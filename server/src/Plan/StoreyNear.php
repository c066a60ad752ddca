<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\DBAL\Connection;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Column;
use Plinth\Core\Plan\Model\Divider;
use Plinth\Core\Plan\Model\DoorExit;
use Plinth\Core\Plan\Model\Line;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningHead;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Plan\Network\Neighbourhood;
use Plinth\Server\Change\Raw;
use Plinth\Server\Change\RowId;
use Symfony\Component\Uid\Uuid;

/**
 * A storey read from the database as far as it is wanted, without entities: this runs at every edit. What is small is
 * read at once.
 *
 * @phpstan-import-type Box from Neighbourhood
 */
final class StoreyNear implements Neighbourhood
{
    /** A storey of so few walls costs less in one piece than by place. */
    private const SMALL = 300;
    /** A walk along many places is better off with all of it. */
    private const MOST_ASKED = 8;
    private const WALLS = 'SELECT w.id, f.x, f.y, t.x, t.y, w.thickness, w.line, w.height, w.rise, w.enclosing, w.to_ceiling, w.railing FROM wall w JOIN node f ON f.project = w.project AND f.id = w.from_node JOIN node t ON t.project = w.project AND t.id = w.to_node WHERE w.project = ? AND w.storey = ?';

    /** @var Box|null */
    private ?array $bounds = null;
    private bool $isSmall = true;
    /** @var list<Wall>|null */
    private ?array $all = null;
    /** @var array<string, list<Wall>> */
    private array $asked = [];
    /** @var list<Divider>|null */
    private ?array $dividers = null;
    private bool $boundsKnown = false;
    /** @var list<Column>|null */
    private ?array $columns = null;
    /** @var list<Room>|null */
    private ?array $rooms = null;

    public function __construct(private readonly Connection $connection, private readonly RowId $storey)
    {
    }

    public function lines(array $box): array
    {
        $this->bounds();
        $lines = $this->dividers();
        if ($this->isSmall || \count($this->asked) >= self::MOST_ASKED) {
            return [...$lines, ...($this->all ??= self::walls($this->connection->iterateNumeric(self::WALLS, $this->storey->binary())))];
        }
        [$x1, $y1, $x2, $y2] = $box;
        // What bounds rooms and what does not is asked for one after the other.
        $this->asked[implode(',', $box)] ??= self::walls(
            $this->connection->iterateNumeric(
                self::WALLS.' AND w.x_min <= ? AND w.x_max >= ? AND w.y_min <= ? AND w.y_max >= ?',
                [...$this->storey->binary(), $x2, $x1, $y2, $y1],
            ),
        );

        return [...$lines, ...$this->asked[implode(',', $box)]];
    }

    public function columns(array $box): array
    {
        if (null === $this->columns) {
            $this->columns = [];
            foreach ($this->connection->iterateNumeric(
                'SELECT id, x, y, width, depth, round FROM building_column WHERE project = ? AND storey = ? ORDER BY id',
                $this->storey->binary(),
            ) as [$id, $x, $y, $width, $depth, $round]) {
                $this->columns[] = new Column(
                    Raw::id($id),
                    new Point(Raw::number($x), Raw::number($y)),
                    Raw::number($width),
                    Raw::number($depth),
                    0.0 !== Raw::number($round),
                );
            }
        }
        $r = 20_000.0;

        return array_values(
            array_filter(
                $this->columns,
                static fn (Column $c): bool => $c->centre->x >= $box[0] - $r && $c->centre->x <= $box[2] + $r && $c->centre->y >= $box[1] - $r && $c->centre->y <= $box[3] + $r,
            ),
        );
    }

    public function rooms(array $box): array
    {
        if (null === $this->rooms) {
            $this->rooms = [];
            foreach ($this->connection->iterateNumeric(
                'SELECT id, name, number, x, y, height FROM room WHERE project = ? AND storey = ? ORDER BY id',
                $this->storey->binary(),
            ) as [$id, $name, $number, $x, $y, $height]) {
                $this->rooms[] = new Room(
                    Raw::id($id),
                    Raw::text($name),
                    Raw::text($number),
                    new Point(Raw::number($x), Raw::number($y)),
                    Raw::optional($height),
                );
            }
        }

        return array_values(
            array_filter(
                $this->rooms,
                static fn (Room $r): bool => $r->anchor->x >= $box[0] && $r->anchor->x <= $box[2] && $r->anchor->y >= $box[1] && $r->anchor->y <= $box[3],
            ),
        );
    }

    public function openings(array $walls): array
    {
        if ([] === $walls) {
            return [];
        }
        $of = array_map(static fn (string $w): string => Uuid::fromString($w)->toBinary(), $walls);
        $openings = [];
        foreach ($this->connection->iterateNumeric(
            'SELECT id, wall, kind, offset_mm, width, sill, height, hand, swing, leaf, head, rise, exit_kind, rated FROM opening WHERE project = ? AND wall IN ('.implode(
                ',',
                array_fill(0, \count($of), '?'),
            ).') ORDER BY id',
            [$this->storey->project->toBinary(), ...$of],
        ) as [$id, $wall, $kind, $offset, $width, $sill, $height, $hand, $swing, $leaf, $head, $rise, $exit, $rated]) {
            $openings[] = new Opening(
                Raw::id($id),
                Raw::id($wall),
                OpeningKind::from(Raw::text($kind)),
                Raw::number($offset),
                Raw::number($width),
                Raw::number($sill),
                Raw::optional($height),
                Raw::text($hand),
                Raw::text($swing),
                Raw::text($leaf),
                OpeningHead::from(Raw::text($head)),
                Raw::number($rise),
                DoorExit::from(Raw::text($exit)),
                Raw::text($rated),
            );
        }

        return $openings;
    }

    public function bounds(): ?array
    {
        if (!$this->boundsKnown) {
            $this->boundsKnown = true;
            // One at a time each is the end of an index.
            $key = $this->storey->binary();
            $walls = $this->connection->fetchNumeric(
                'SELECT (SELECT MIN(x_min) FROM wall WHERE project = ? AND storey = ?), (SELECT MIN(y_min) FROM wall WHERE project = ? AND storey = ?), (SELECT MAX(x_max) FROM wall WHERE project = ? AND storey = ?), (SELECT MAX(y_max) FROM wall WHERE project = ? AND storey = ?), (SELECT COUNT(*) FROM wall WHERE project = ? AND storey = ?)',
                [...$key, ...$key, ...$key, ...$key, ...$key],
            );
            $dividers = $this->connection->fetchNumeric(
                'SELECT MIN(LEAST(x1, x2) - ABS(rise)), MIN(LEAST(y1, y2) - ABS(rise)), MAX(GREATEST(x1, x2) + ABS(rise)), MAX(GREATEST(y1, y2) + ABS(rise)) FROM divider WHERE project = ? AND storey = ?',
                $this->storey->binary(),
            );
            $this->isSmall = Raw::number($walls[4] ?? 0) <= self::SMALL;
            foreach ([$walls, $dividers] as $row) {
                if (\is_array($row) && isset($row[0], $row[1], $row[2], $row[3])) {
                    $box = [Raw::number($row[0]), Raw::number($row[1]), Raw::number($row[2]), Raw::number($row[3])];
                    $b = $this->bounds ?? $box;
                    $this->bounds = [min($b[0], $box[0]), min($b[1], $box[1]), max($b[2], $box[2]), max($b[3], $box[3])];
                }
            }
        }

        return $this->bounds;
    }

    /** @return list<Divider> */
    private function dividers(): array
    {
        if (null !== $this->dividers) {
            return $this->dividers;
        }
        $dividers = [];
        foreach ($this->connection->iterateNumeric(
            'SELECT id, x1, y1, x2, y2, rise FROM divider WHERE project = ? AND storey = ? ORDER BY id',
            $this->storey->binary(),
        ) as [$id, $x1, $y1, $x2, $y2, $rise]) {
            $dividers[] = new Divider(
                Raw::id($id),
                new Point(Raw::number($x1), Raw::number($y1)),
                new Point(Raw::number($x2), Raw::number($y2)),
                Raw::number($rise),
            );
        }

        return $this->dividers = $dividers;
    }

    /**
     * @param iterable<list<mixed>> $rows
     *
     * @return list<Wall>
     */
    private static function walls(iterable $rows): array
    {
        $walls = [];
        foreach ($rows as [$id, $x1, $y1, $x2, $y2, $thickness, $line, $height, $rise, $enclosing, $toCeiling, $railing]) {
            $walls[] = new Wall(
                Raw::id($id),
                new Point(Raw::number($x1), Raw::number($y1)),
                new Point(Raw::number($x2), Raw::number($y2)),
                Raw::number($thickness),
                Line::from(Raw::text($line)),
                Raw::optional($height),
                Raw::number($rise),
                0.0 !== Raw::number($enclosing),
                0.0 !== Raw::number($toCeiling),
                0.0 !== Raw::number($railing),
            );
        }

        return $walls;
    }
}
