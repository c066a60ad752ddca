<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Network;

use Plinth\Core\Geometry\Blocks;
use Plinth\Core\Plan\Model\Column;
use Plinth\Core\Plan\Model\Divider;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;

/** A storey held in memory, by place; its things may be put, put anew and taken away. */
final class WholeStorey implements Neighbourhood
{
    /** @var array<string, Wall|Divider> */
    private array $lines = [];
    /** of lines by their ids */
    private readonly Blocks $blocks;
    /** of columns by their numbers */
    private readonly Blocks $columns;
    /** of rooms by their numbers */
    private readonly Blocks $rooms;
    /** @var array<string, list<Opening>> */
    private array $openings = [];
    /** @var array{float, float, float, float}|null of all that was ever put */
    private ?array $bounds = null;

    public function __construct(private readonly Storey $storey)
    {
        [$this->blocks, $this->columns, $this->rooms] = [new Blocks(), new Blocks(), new Blocks()];
        foreach ($storey->columns as $n => $column) {
            $this->columns->put($n, $column->box());
        }
        foreach ($storey->rooms as $n => $room) {
            $this->rooms->put($n, [$room->anchor->x, $room->anchor->y, $room->anchor->x, $room->anchor->y]);
        }
        foreach ([...$storey->walls, ...$storey->dividers] as $line) {
            $this->put($line);
        }
        foreach ($storey->openings as $opening) {
            $this->openings[$opening->wall][] = $opening;
        }
    }

    public function put(Wall|Divider $line): void
    {
        $this->takeAway($line->id);
        $this->lines[$line->id] = $line;
        $box = $line->box();
        $this->blocks->put($line->id, $box);
        $b = $this->bounds ?? $box;
        $this->bounds = [min($b[0], $box[0]), min($b[1], $box[1]), max($b[2], $box[2]), max($b[3], $box[3])];
    }

    public function takeAway(string $id): void
    {
        if (isset($this->lines[$id])) {
            $this->blocks->takeAway($id, $this->lines[$id]->box());
            unset($this->lines[$id]);
        }
    }

    /** The storey as it is now. */
    public function storey(): Storey
    {
        $s = $this->storey;
        $walls = array_values(array_filter($this->lines, static fn ($l): bool => $l instanceof Wall));
        $dividers = array_values(array_filter($this->lines, static fn ($l): bool => $l instanceof Divider));

        return $s->with($walls, $s->openings, $dividers);
    }

    public function lines(array $box): array
    {
        return array_map(fn (string|int $id): Wall|Divider => $this->lines[$id], $this->blocks->near($box) ?? array_keys($this->lines));
    }

    public function columns(array $box): array
    {
        $numbers = $this->columns->near($box);

        return null === $numbers ? $this->storey->columns : array_map(fn (string|int $n): Column => $this->storey->columns[$n], $numbers);
    }

    public function rooms(array $box): array
    {
        $numbers = $this->rooms->near($box);

        return null === $numbers ? $this->storey->rooms : array_map(fn (string|int $n): Room => $this->storey->rooms[$n], $numbers);
    }

    public function openings(array $walls): array
    {
        return array_merge(...array_map(fn (string $w): array => $this->openings[$w] ?? [], $walls));
    }

    public function bounds(): ?array
    {
        return $this->bounds;
    }
}
