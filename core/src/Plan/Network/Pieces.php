<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Network;

use Plinth\Core\Geometry\Tolerance;
use Plinth\Core\Plan\Model\Divider;
use Plinth\Core\Plan\Model\Wall;

/**
 * Pieces of walls and dividers by place, fetched block by block as far as they are asked for.
 *
 * @phpstan-import-type Box from Neighbourhood
 */
final class Pieces implements PieceSource
{
    private const CELL_MM = 2000.0;
    /** What is fetched at once: a few rooms. */
    private const BLOCK_MM = 20_000.0;
    /** Cells of one column are numbered from a multiple of this; none lies so far off. */
    private const COLUMN = 1 << 24;
    /**
     * Where a box holds more cells or blocks than this, things are looked through instead: what is drawn decides the price, not how far it
     * reaches.
     */
    private const MANY = 4096;
    /** No box reaches further than this beyond what is drawn. */
    private const BEYOND_MM = 1.0;

    /** @var array<int, list<int>> cell → numbers of pieces */
    private array $cells = [];
    /** @var list<Piece> */
    private array $pieces = [];
    /** @var array<string, Wall|Divider> */
    private array $known = [];
    /** @var array<int, true> */
    private array $fetched = [];
    /** @var array<string, list<Piece>> */
    private array $byWall = [];
    /** @var Box|null */
    private ?array $bounds;
    /** @var Box|null the latest blocks that were looked at: all of it is here */
    private ?array $within = null;

    /** @param bool $enclosing what bounds rooms; otherwise what does not */
    public function __construct(private readonly Neighbourhood $plan, private readonly bool $enclosing = true)
    {
        $this->bounds = $plan->bounds();
    }

    /**
     * @return list<Piece> whose body, and a millimetre round it, may touch the box
     */
    public function near(float $x1, float $y1, float $x2, float $y2): array
    {
        if (null === $this->bounds) {
            return [];
        }
        [$bx1, $by1, $bx2, $by2] = $this->bounds;
        $x1 = max($x1, $bx1 - self::BEYOND_MM);
        $y1 = max($y1, $by1 - self::BEYOND_MM);
        $x2 = min($x2, $bx2 + self::BEYOND_MM);
        $y2 = min($y2, $by2 + self::BEYOND_MM);
        if ($x1 > $x2 || $y1 > $y2) {
            return [];
        }
        $this->fetch($x1, $y1, $x2, $y2);
        $found = [];
        $iStart = (int) floor($x1 / self::CELL_MM);
        $iEnd = (int) floor($x2 / self::CELL_MM);
        $jStart = (int) floor($y1 / self::CELL_MM);
        $jEnd = (int) floor($y2 / self::CELL_MM);
        if ($iStart === $iEnd && $jStart === $jEnd) {
            foreach ($this->cells[$iStart * self::COLUMN + $jStart] ?? [] as $n) {
                $found[] = $this->pieces[$n];
            }

            return $found;
        }
        if (($iEnd - $iStart + 1) * ($jEnd - $jStart + 1) > min(self::MANY, 4 * \count($this->pieces))) {
            return array_values(array_filter($this->pieces, static function (Piece $p) use ($x1, $y1, $x2, $y2): bool {
                $r = $p->half + Wall::JOIN_MM;

                return max($p->a[0], $p->b[0]) + $r >= $x1
                    && min($p->a[0], $p->b[0]) - $r <= $x2
                    && max($p->a[1], $p->b[1]) + $r >= $y1
                    && min($p->a[1], $p->b[1]) - $r <= $y2;
            }));
        }
        for ($i = $iStart; $i <= $iEnd; ++$i) {
            for ($j = $jStart; $j <= $jEnd; ++$j) {
                foreach ($this->cells[$i * self::COLUMN + $j] ?? [] as $n) {
                    $found[$n] = $this->pieces[$n];
                }
            }
        }

        return array_values($found);
    }

    /** @return list<Piece> */
    public function ofWall(string $wall): array
    {
        return $this->byWall[$wall] ?? [];
    }

    /** @return list<string> ids of all lines that have been fetched */
    public function known(): array
    {
        return array_map(strval(...), array_keys($this->known));
    }

    public function wall(string $id): Wall|Divider|null
    {
        return $this->known[$id] ?? null;
    }

    /** Right end of all that is drawn. */
    public function farRight(): float
    {
        return $this->bounds[2] ?? -\INF;
    }

    private function add(Wall|Divider $line): void
    {
        if (isset($this->known[$line->id]) || $this->enclosing !== ($line instanceof Divider || $line->enclosing)) {
            return;
        }
        $this->known[$line->id] = $line;
        foreach (Piece::of($line) as $piece) {
            $this->addPiece($piece);
        }
    }

    private function addPiece(Piece $piece): void
    {
        $n = \count($this->pieces);
        $this->pieces[] = $piece;
        $this->byWall[$piece->wall][] = $piece;
        $r = $piece->half + Wall::JOIN_MM;
        // From left to right; in each column only the cells that the strip of the piece passes through.
        [$a, $b] = $piece->a[0] <= $piece->b[0] ? [$piece->a, $piece->b] : [$piece->b, $piece->a];
        $slope = $b[0] > $a[0] ? ($b[1] - $a[1]) / ($b[0] - $a[0]) : 0.0;
        $isSteep = $b[0] - $a[0] < Tolerance::ROUND_OFF_MM;
        $iEnd = (int) floor(($b[0] + $r) / self::CELL_MM);
        for ($i = (int) floor(($a[0] - $r) / self::CELL_MM); $i <= $iEnd; ++$i) {
            $left = max($a[0], $i * self::CELL_MM - $r);
            $right = min($b[0], ($i + 1) * self::CELL_MM + $r);
            $y1 = $isSteep ? $a[1] : $a[1] + $slope * ($left - $a[0]);
            $y2 = $isSteep ? $b[1] : $a[1] + $slope * ($right - $a[0]);
            $jEnd = (int) floor((max($y1, $y2) + $r) / self::CELL_MM);
            for ($j = (int) floor((min($y1, $y2) - $r) / self::CELL_MM); $j <= $jEnd; ++$j) {
                $this->cells[$i * self::COLUMN + $j][] = $n;
            }
        }
    }

    private function fetch(float $x1, float $y1, float $x2, float $y2): void
    {
        if (
            isset($this->within)
            && $x1 >= $this->within[0]
            && $y1 >= $this->within[1]
            && $x2 <= $this->within[2]
            && $y2 <= $this->within[3]
        ) {
            return;
        }
        if (($x2 - $x1) * ($y2 - $y1) > self::MANY * self::BLOCK_MM ** 2) {
            foreach ($this->plan->lines([-\INF, -\INF, \INF, \INF]) as $line) {
                $this->add($line);
            }
            $this->within = [-\INF, -\INF, \INF, \INF];

            return;
        }
        $missing = null;
        $iEnd = (int) floor($x2 / self::BLOCK_MM);
        $jEnd = (int) floor($y2 / self::BLOCK_MM);
        $jStart = (int) floor($y1 / self::BLOCK_MM);
        for ($i = (int) floor($x1 / self::BLOCK_MM); $i <= $iEnd; ++$i) {
            for ($j = $jStart; $j <= $jEnd; ++$j) {
                if (isset($this->fetched[$i * self::COLUMN + $j])) {
                    continue;
                }
                $this->fetched[$i * self::COLUMN + $j] = true;
                $missing = null === $missing ? [$i, $j, $i, $j] : [
                    min($missing[0], $i),
                    min($missing[1], $j),
                    max($missing[2], $i),
                    max($missing[3], $j),
                ];
            }
        }
        $first = [(int) floor($x1 / self::BLOCK_MM), $jStart];
        $this->within = [
            $first[0] * self::BLOCK_MM,
            $first[1] * self::BLOCK_MM,
            ($iEnd + 1) * self::BLOCK_MM,
            ($jEnd + 1) * self::BLOCK_MM,
        ];
        if (null === $missing) {
            return;
        }
        $box = [
            $missing[0] * self::BLOCK_MM,
            $missing[1] * self::BLOCK_MM,
            ($missing[2] + 1) * self::BLOCK_MM,
            ($missing[3] + 1) * self::BLOCK_MM,
        ];
        foreach ($this->plan->lines($box) as $line) {
            $this->add($line);
        }
    }
}
