<?php

declare(strict_types=1);

namespace Plinth\Core\Plan;

/** A storey held in memory, by place; its things may be put, put anew and taken away. */
final class WholeStorey implements Neighbourhood
{
    private const BLOCK_MM = 12_000.0;
    /** What reaches over more blocks than this is kept by itself. */
    private const MANY = 1024;
    private const FAR = 'far';

    /** @var array<string, Wall|Divider> */
    private array $lines = [];
    /** @var array<string, array<string, true>> block → ids of lines */
    private array $blocks = [];
    /** @var array<string, list<Opening>> */
    private array $openings = [];
    /** @var array{float, float, float, float}|null of all that was ever put */
    private ?array $bounds = null;

    public function __construct(private readonly Storey $storey)
    {
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
        $box = Derivation::boxOf($line);
        foreach (self::keys($box) as $key) {
            $this->blocks[$key][$line->id] = true;
        }
        $b = $this->bounds ?? $box;
        $this->bounds = [min($b[0], $box[0]), min($b[1], $box[1]), max($b[2], $box[2]), max($b[3], $box[3])];
    }

    public function takeAway(string $id): void
    {
        if (isset($this->lines[$id])) {
            foreach (self::keys(Derivation::boxOf($this->lines[$id])) as $key) {
                unset($this->blocks[$key][$id]);
            }
            unset($this->lines[$id]);
        }
    }

    /** The storey as it is now. */
    public function storey(): Storey
    {
        $s = $this->storey;
        $walls = array_values(array_filter($this->lines, static fn ($l): bool => $l instanceof Wall));
        $dividers = array_values(array_filter($this->lines, static fn ($l): bool => $l instanceof Divider));

        return new Storey($s->id, $s->name, $s->elevation, $s->height, $walls, $s->openings, $s->rooms, $dividers, $s->columns);
    }

    public function lines(array $box): array
    {
        $keys = self::keys($box);
        $found = [self::FAR] === $keys ? array_fill_keys(array_keys($this->lines), true) : $this->blocks[self::FAR] ?? [];
        foreach ($keys as $key) {
            $found += $this->blocks[$key] ?? [];
        }

        return array_map(fn (string|int $id): Wall|Divider => $this->lines[$id], array_keys($found));
    }

    public function columns(array $box): array
    {
        return $this->storey->columns;
    }

    public function rooms(array $box): array
    {
        return array_values(array_filter($this->storey->rooms, static fn (Room $r): bool => $r->anchor->x >= $box[0] && $r->anchor->x <= $box[2] && $r->anchor->y >= $box[1] && $r->anchor->y <= $box[3]));
    }

    public function openings(array $walls): array
    {
        return array_merge(...array_map(fn (string $w): array => $this->openings[$w] ?? [], $walls));
    }

    public function bounds(): ?array
    {
        return $this->bounds;
    }

    /**
     * @param array{float, float, float, float} $box
     *
     * @return list<string>
     */
    private static function keys(array $box): array
    {
        if (($box[2] - $box[0]) / self::BLOCK_MM * (($box[3] - $box[1]) / self::BLOCK_MM) > self::MANY) {
            return [self::FAR];
        }
        $keys = [];
        for ($i = (int) floor($box[0] / self::BLOCK_MM); $i <= (int) floor($box[2] / self::BLOCK_MM); ++$i) {
            for ($j = (int) floor($box[1] / self::BLOCK_MM); $j <= (int) floor($box[3] / self::BLOCK_MM); ++$j) {
                $keys[] = $i.','.$j;
            }
        }

        return $keys;
    }
}
