<?php

declare(strict_types=1);

namespace Plinth\Core\Projection;

use Plinth\Core\Bodies\Body;
use Plinth\Core\Projection\Internal\CutFacets;
use Plinth\Core\Projection\Internal\HiddenLines;
use Plinth\Core\Projection\Internal\Merged;
use Plinth\Core\Projection\Internal\PlacedBody;
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
        $count = \count($bodies);
        $placed = PlacedBody::all($bodies, $view);
        $cuts = CutFacets::of($placed, $view, $count);
        $facets = [...$cuts->facets, ...SeenFaces::of($placed, $view, $cuts->facets, $withHidden)];
        [$visible, $hidden] = HiddenLines::of($facets, $withHidden);
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

        $faces = [];
        foreach ($cuts->faces as [$number, $shape]) {
            $body = $bodies[$number];
            $faces[] = new CutFace($shape['outer'], $shape['holes'], $body->kind, $body->id, $body->storey);
        }

        return new DrawnView($lines, $faces);
    }
}
