<?php

declare(strict_types=1);

namespace Plinth\Core\Projection;

use Plinth\Core\Bodies\Body;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Projection\Internal\Facet;
use Plinth\Core\Projection\Internal\HiddenLines;
use Plinth\Core\Projection\Internal\Merged;
use Plinth\Core\Projection\Internal\SeenFaces;

/**
 * Bodies in true parallel projection onto a side or a section.
 *
 * What is cut is filled, with the edges of what it is made of round it; what lies behind shows its visible edges, and its hidden ones
 * where they are wanted. All of it is worked out from the faces of the bodies; nothing is drawn where bodies of one kind lie flush.
 */
final class Projection
{
    /** @param list<Body> $bodies */
    public static function of(array $bodies, View $view, bool $withHidden = false): DrawnView
    {
        $seen = new SeenFaces($bodies, $view);
        [$faces, $covers] = self::cut($bodies, $seen);
        [$visible, $hidden] = HiddenLines::of([...$covers, ...$seen->all], $withHidden);
        $count = \count($bodies);
        $isCut = static fn (array $piece): bool => $piece[4] >= $count;
        $pieces = [
            [array_filter($visible, $isCut), LineRole::Cut],
            [array_filter($visible, static fn (array $piece): bool => !$isCut($piece)), LineRole::Visible],
            [array_filter($hidden, static fn (array $piece): bool => !$isCut($piece)), LineRole::Hidden],
        ];
        [$lines, $drawn] = [[], []];
        foreach ($pieces as [$of, $role]) {
            $new = [];
            // What is drawn already is not drawn again as something less.
            foreach (Merged::of([...$drawn, ...$of]) as [$u1, $v1, $u2, $v2, $number]) {
                if ($number >= 0) {
                    $body = $bodies[$number % $count];
                    $lines[] = new ViewLine([$u1, $v1], [$u2, $v2], $role, $body->kind, $body->id, $body->storey);
                    $new[] = [$u1, $v1, $u2, $v2, -1];
                }
            }
            array_push($drawn, ...$new);
        }

        return new DrawnView($lines, $faces);
    }

    /**
     * @param list<Body> $bodies
     *
     * @return array{list<CutFace>, list<Facet>} faces, and the same as what lies before all else; those of one kind go on in each other
     */
    private static function cut(array $bodies, SeenFaces $seen): array
    {
        [$faces, $covers, $kinds] = [[], [], []];
        foreach ($seen->cuts as $number => $cuts) {
            $body = $bodies[$number];
            foreach ($cuts as [$rings, $depth]) {
                $kinds[$body->kind->value] ??= -2 - \count($kinds);
                foreach (Overlay::union($rings) as ['outer' => $outer, 'holes' => $holes]) {
                    $faces[] = new CutFace($outer, $holes, $body->kind, $body->id, $body->storey);
                    $at = [];
                    foreach ([$outer, ...$holes] as $ring) {
                        $at[] = array_map(static fn (array $p): array => [$p[0], $p[1], $depth], $ring);
                    }
                    $isDrawn = array_map(static fn (array $ring): array => array_fill(0, \count($ring), true), $at);
                    $covers[] = new Facet($at, $isDrawn, 0.0, 0.0, $depth, $kinds[$body->kind->value], true, $number + \count($bodies));
                }
            }
        }

        return [$faces, $covers];
    }
}
