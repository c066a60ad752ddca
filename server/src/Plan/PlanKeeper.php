<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\DBAL\Connection;
use Plinth\Core\Exchange\PlanDocument\PlanWriter;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Derivation;
use Plinth\Core\Plan\Line;
use Plinth\Core\Plan\Opening as CoreOpening;
use Plinth\Core\Plan\OpeningKind;
use Plinth\Core\Plan\Room as CoreRoom;
use Plinth\Core\Plan\Storey as CoreStorey;
use Plinth\Core\Plan\Wall as CoreWall;
use Plinth\Server\Change\RowType;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Http\Refusal;
use Symfony\Component\Uid\Uuid;

/** Keeps the plan's rules while rows change, and what is derived from them. */
final readonly class PlanKeeper
{
    public function __construct(private Connection $connection)
    {
    }

    /** Walls keep a length, their boxes stay true, and openings stay narrower than their walls. */
    public function check(Workspace $workspace): void
    {
        $walls = [];
        foreach ($workspace->touched(RowType::Wall) as $wall) {
            \assert($wall instanceof Wall);
            $walls[$wall->id()->toRfc4122()] = $wall;
        }
        $moved = array_filter($workspace->touched(RowType::Node), static fn ($n): bool => null !== ($workspace->before()['node/'.$n->id()->toRfc4122()][2] ?? null));
        foreach ($moved as $node) {
            foreach (['fromNode', 'toNode'] as $end) {
                foreach ($workspace->findBy(Wall::class, $end, $node->id()) as $wall) {
                    $walls[$wall->id()->toRfc4122()] = $wall;
                }
            }
        }
        $lengths = [];
        foreach ($walls as $id => $wall) {
            $lengths[$id] = $wall->span($workspace->get(Node::class, $wall->fromNode())->at(), $workspace->get(Node::class, $wall->toNode())->at())->length();
        }
        foreach ($workspace->touched(RowType::Opening) as $opening) {
            \assert($opening instanceof Opening);
            $id = $opening->wall()->toRfc4122();
            if (!isset($lengths[$id])) {
                $wall = $workspace->get(Wall::class, $opening->wall());
                $lengths[$id] = $wall->span($workspace->get(Node::class, $wall->fromNode())->at(), $workspace->get(Node::class, $wall->toNode())->at())->length();
            }
            if ($opening->width() > $lengths[$id]) {
                throw Refusal::invalid('opening-too-wide', \sprintf('The opening is %.0f mm wide, its wall only %.0f mm long: make it narrower, or choose a longer wall.', $opening->width(), $lengths[$id]), $opening->id()->toRfc4122().'/width');
            }
        }
    }

    /** Derives every storey that the change has touched, and keeps the result for its revision. */
    public function deriveTouched(Workspace $workspace, int $revision): void
    {
        $storeys = [];
        foreach ($workspace->before() as [$type, , $before]) {
            if (\in_array($type, [RowType::Node, RowType::Wall, RowType::Room], true) && \is_string($before['storey'] ?? null)) {
                $storeys[$before['storey']] = true;
            }
            if (RowType::Opening === $type && \is_string($before['wall'] ?? null)) {
                $wall = $workspace->find(RowType::Wall, Uuid::fromString($before['wall']));
                if ($wall instanceof Wall) {
                    $storeys[$wall->storey()->toRfc4122()] = true;
                }
            }
        }
        foreach ($workspace->touched(RowType::Node, RowType::Wall, RowType::Room, RowType::Opening) as $row) {
            $storey = match (true) {
                $row instanceof Node, $row instanceof Wall, $row instanceof Room => $row->storey(),
                $row instanceof Opening => $workspace->get(Wall::class, $row->wall())->storey(),
                default => null,
            };
            if (null !== $storey) {
                $storeys[$storey->toRfc4122()] = true;
            }
        }
        foreach (array_keys($storeys) as $storey) {
            $this->derive(Uuid::fromString($storey), $revision);
        }
    }

    /** @return array{revision: int, shapes: string} JSON of the shapes */
    public function derived(Uuid $storey): array
    {
        $row = $this->connection->fetchAssociative('SELECT revision, shapes FROM derived_storey WHERE storey = ?', [$storey->toBinary()]);
        if (false !== $row && is_numeric($row['revision']) && \is_string($row['shapes'])) {
            return ['revision' => (int) $row['revision'], 'shapes' => $row['shapes']];
        }

        return ['revision' => 0, 'shapes' => $this->shapes($storey)];
    }

    private function derive(Uuid $storey, int $revision): void
    {
        $this->connection->executeStatement(
            'INSERT INTO derived_storey (storey, revision, shapes) VALUES (?, ?, ?) ON DUPLICATE KEY UPDATE revision = VALUES(revision), shapes = VALUES(shapes)',
            [$storey->toBinary(), $revision, $this->shapes($storey)],
        );
    }

    private function shapes(Uuid $storey): string
    {
        return json_encode(PlanWriter::derived(Derivation::of($this->load($storey))), \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE);
    }

    /** The storey as the core knows it, read without entities: this runs at every edit. */
    public function load(Uuid $storey): CoreStorey
    {
        $key = [$storey->toBinary()];
        $head = $this->connection->fetchAssociative('SELECT name, elevation, height FROM storey WHERE id = ?', $key);
        $walls = [];
        foreach ($this->connection->iterateNumeric('SELECT w.id, f.x, f.y, t.x, t.y, w.thickness, w.line, w.height FROM wall w JOIN node f ON f.id = w.from_node JOIN node t ON t.id = w.to_node WHERE w.storey = ? ORDER BY w.id', $key) as [$id, $x1, $y1, $x2, $y2, $thickness, $line, $height]) {
            $walls[] = new CoreWall(self::id($id), new Point(self::number($x1), self::number($y1)), new Point(self::number($x2), self::number($y2)), self::number($thickness), Line::from(self::text($line)), null === $height ? null : self::number($height));
        }
        $openings = [];
        foreach ($this->connection->iterateNumeric('SELECT o.id, o.wall, o.kind, o.offset_mm, o.width, o.sill, o.height, o.hand, o.swing FROM opening o JOIN wall w ON w.id = o.wall WHERE w.storey = ? ORDER BY o.id', $key) as [$id, $wall, $kind, $offset, $width, $sill, $height, $hand, $swing]) {
            $openings[] = new CoreOpening(self::id($id), self::id($wall), OpeningKind::from(self::text($kind)), self::number($offset), self::number($width), self::number($sill), null === $height ? null : self::number($height), self::text($hand), self::text($swing));
        }
        $rooms = [];
        foreach ($this->connection->iterateNumeric('SELECT id, name, number, x, y FROM room WHERE storey = ? ORDER BY id', $key) as [$id, $name, $number, $x, $y]) {
            $rooms[] = new CoreRoom(self::id($id), self::text($name), self::text($number), new Point(self::number($x), self::number($y)));
        }

        return new CoreStorey($storey->toRfc4122(), self::text($head['name'] ?? ''), self::number($head['elevation'] ?? 0.0), self::number($head['height'] ?? 2700.0), $walls, $openings, $rooms);
    }

    private static function id(mixed $value): string
    {
        return Uuid::fromBinary(self::text($value))->toRfc4122();
    }

    private static function number(mixed $value): float
    {
        return is_numeric($value) ? (float) $value : 0.0;
    }

    private static function text(mixed $value): string
    {
        return \is_scalar($value) ? (string) $value : '';
    }
}
