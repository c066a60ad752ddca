<?php

declare(strict_types=1);

namespace Plinth\Core\Projection;

use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Polygon;

/** What a side or a section shows. */
final readonly class DrawnView
{
    /**
     * @param list<ViewLine> $lines
     * @param list<CutFace> $faces
     */
    public function __construct(public array $lines, public array $faces)
    {
    }

    /** What of it lies between two places along its plane; ends that are cut off there are left open. */
    public function between(float $from, float $to): self
    {
        $lines = [];
        foreach ($this->lines as $line) {
            [$a, $b] = [$line->from, $line->to];
            if (max($a[0], $b[0]) < $from || min($a[0], $b[0]) > $to) {
                continue;
            }
            [$p, $q] = [self::end($a, $a, $b, $from, $to), self::end($b, $a, $b, $from, $to)];
            if ($p !== $q) {
                $lines[] = new ViewLine($p, $q, $line->role, $line->kind, $line->body, $line->storey);
            }
        }
        $faces = [];
        foreach ($this->faces as $face) {
            [$left, $low, $right, $high] = Polygon::bounds($face->outer);
            $beside = static fn (float $u, float $v): array => [[$u, $low - 1.0], [$v, $low - 1.0], [$v, $high + 1.0], [$u, $high + 1.0]];
            $without = [
                ...($from > $left ? [$beside($left - 1.0, $from)] : []),
                ...($to < $right ? [$beside($to, $right + 1.0)] : []),
                ...array_map(array_reverse(...), $face->holes),
            ];
            foreach (Overlay::difference([$face->outer], $without) as ['outer' => $outer, 'holes' => $holes]) {
                $faces[] = new CutFace($outer, $holes, $face->kind, $face->body, $face->storey);
            }
        }

        return new self($lines, $faces);
    }

    /**
     * @param array{float, float, float, float} $box least u and v, most u and v
     *
     * @return list<ViewLine> what of its lines lies in a box
     */
    public function within(array $box): array
    {
        $lines = [];
        foreach ($this->lines as $line) {
            [$from, $to] = self::part($line, $box);
            if ($to > $from) {
                $lines[] = self::piece($line, $from, $to);
            }
        }

        return $lines;
    }

    /**
     * @param array{float, float, float, float} $box least u and v, most u and v
     *
     * @return list<ViewLine> what of its lines lies outside it
     */
    public function outside(array $box): array
    {
        $lines = [];
        foreach ($this->lines as $line) {
            [$from, $to] = self::part($line, $box);
            foreach ($to > $from ? [[0.0, $from], [$to, 1.0]] : [[0.0, 1.0]] as [$a, $b]) {
                if ($b > $a) {
                    $lines[] = self::piece($line, $a, $b);
                }
            }
        }

        return $lines;
    }

    /**
     * @param array{float, float, float, float} $box
     *
     * @return array{float, float} from and to which part of a line lies in a box (Liang and Barsky, 1984); the same where none does
     */
    private static function part(ViewLine $line, array $box): array
    {
        [$from, $to] = [0.0, 1.0];
        foreach ([0, 1] as $k) {
            $way = $line->to[$k] - $line->from[$k];
            [$low, $high] = [$box[$k] - $line->from[$k], $box[$k + 2] - $line->from[$k]];
            if (0.0 === $way) {
                if ($low > 0.0 || $high < 0.0) {
                    return [0.0, 0.0];
                }
                continue;
            }
            $from = max($from, min($low / $way, $high / $way));
            $to = min($to, max($low / $way, $high / $way));
        }

        return [$from, max($from, $to)];
    }

    private static function piece(ViewLine $line, float $from, float $to): ViewLine
    {
        $at = static fn (float $part): array => [
            $line->from[0] + $part * ($line->to[0] - $line->from[0]), $line->from[1] + $part * ($line->to[1] - $line->from[1]),
        ];

        return 0.0 === $from && 1.0 === $to ? $line : new ViewLine(
            0.0 === $from ? $line->from : $at($from),
            1.0 === $to ? $line->to : $at($to),
            $line->role,
            $line->kind,
            $line->body,
            $line->storey,
        );
    }

    /**
     * @param array{float, float} $p an end of the line from a to b
     * @param array{float, float} $a
     * @param array{float, float} $b
     *
     * @return array{float, float} that end, or where the line leaves the stretch
     */
    private static function end(array $p, array $a, array $b, float $from, float $to): array
    {
        $u = max($from, min($to, $p[0]));

        return $u === $p[0] ? $p : [$u, $a[1] + ($u - $a[0]) / ($b[0] - $a[0]) * ($b[1] - $a[1])];
    }

    /**
     * @param array{float, float} $p
     *
     * @return array{float, float}
     */
    private static function beside(array $p, float $du, float $dv): array
    {
        return [$p[0] + $du, $p[1] + $dv];
    }

    /**
     * @param non-empty-list<array{float, float}> $ring
     *
     * @return non-empty-list<array{float, float}>
     */
    private static function all(array $ring, float $du, float $dv): array
    {
        return array_map(static fn (array $p): array => self::beside($p, $du, $dv), $ring);
    }

    /** The same elsewhere in its plane, mm. */
    public function shifted(float $du, float $dv): self
    {
        return new self(
            array_map(static fn (ViewLine $l): ViewLine => new ViewLine(
                self::beside($l->from, $du, $dv),
                self::beside($l->to, $du, $dv),
                $l->role,
                $l->kind,
                $l->body,
                $l->storey,
            ), $this->lines),
            array_map(static fn (CutFace $f): CutFace => new CutFace(
                self::all($f->outer, $du, $dv),
                array_map(static fn (array $ring): array => self::all($ring, $du, $dv), $f->holes),
                $f->kind,
                $f->body,
                $f->storey,
            ), $this->faces),
        );
    }

    /** @return array{float, float, float, float}|null least u and v, most u and v, mm; null where nothing is seen */
    public function bounds(): ?array
    {
        $places = [];
        foreach ($this->lines as $line) {
            array_push($places, $line->from, $line->to);
        }
        foreach ($this->faces as $face) {
            array_push($places, ...$face->outer);
        }

        return [] === $places ? null : [
            min(array_column($places, 0)),
            min(array_column($places, 1)),
            max(array_column($places, 0)),
            max(array_column($places, 1)),
        ];
    }
}
