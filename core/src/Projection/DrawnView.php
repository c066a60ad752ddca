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
            [$p, $q] = [self::within($a, $a, $b, $from, $to), self::within($b, $a, $b, $from, $to)];
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
     * @param array{float, float} $p an end of the line from a to b
     * @param array{float, float} $a
     * @param array{float, float} $b
     *
     * @return array{float, float} that end, or where the line leaves the stretch
     */
    private static function within(array $p, array $a, array $b, float $from, float $to): array
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
