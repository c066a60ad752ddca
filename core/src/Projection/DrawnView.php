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
            $at = static fn (array $p): array => match (true) {
                $p[0] < $from => [$from, $a[1] + ($from - $a[0]) / ($b[0] - $a[0]) * ($b[1] - $a[1])],
                $p[0] > $to => [$to, $a[1] + ($to - $a[0]) / ($b[0] - $a[0]) * ($b[1] - $a[1])],
                default => $p,
            };
            [$p, $q] = [$at($a), $at($b)];
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

    /** The same elsewhere in its plane, mm. */
    public function shifted(float $du, float $dv): self
    {
        $at = static fn (array $p): array => [$p[0] + $du, $p[1] + $dv];

        return new self(
            array_map(static fn (ViewLine $l): ViewLine => new ViewLine($at($l->from), $at($l->to), $l->role, $l->kind, $l->body, $l->storey), $this->lines),
            array_map(static fn (CutFace $f): CutFace => new CutFace(
                array_map($at, $f->outer),
                array_map(static fn (array $ring): array => array_map($at, $ring), $f->holes),
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
