<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\BodiesDocument;

use Plinth\Core\Bodies\Body;
use Plinth\Core\Bodies\FinishedSurface;
use Plinth\Core\Bodies\Refused;
use Plinth\Core\Bodies\RoomHeight;
use Plinth\Core\Bodies\ShownStair;
use Plinth\Core\Bodies\ShownSweep;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Plan\Model\StairLimit;
use Plinth\Core\Roof\Roof;
use Plinth\Core\Roof\RoofFacet;
use Plinth\Core\Roof\RoofLine;
use Plinth\Core\Stairs\StairFinding;
use Plinth\Core\Stairs\StairLimits;
use Plinth\Core\Stairs\Tread;

/** Bodies, and what is counted of them, as data for JSON (docs/plan-format.md). */
final class BodiesWriter
{
    /** @return array<string, mixed> a body where it stands, with its quantities */
    public static function body(Body $body): array
    {
        $mesh = $body->mesh();

        return [
            'storey' => $body->storey,
            'kind' => $body->kind->value,
            'id' => $body->id,
            'volumeM3' => $mesh->volume() / 1e9,
            'areaM2' => $mesh->area() / 1e6,
            'vertices' => $mesh->vertices,
            'faces' => $mesh->faces,
            'triangles' => $mesh->triangles(),
        ];
    }

    /**
     * Bodies as they are drawn: forms about a place of their own, to a hundredth of a millimetre, and where each stands. Faces one after
     * another: how many rings each has, and of each ring how many corners, and which.
     *
     * @param list<Body> $bodies
     *
     * @return array{origin: array{float, float}, forms: list<array<string, mixed>>, bodies: list<array<string, mixed>>}
     */
    public static function drawn(array $bodies): array
    {
        $first = $bodies[0] ?? null;
        [$x, $y] = null === $first ? [0.0, 0.0] : array_map(round(...), \array_slice($first->mesh()->vertices[0], 0, 2));
        [$forms, $numbers, $told] = [[], new \WeakMap(), []];
        foreach ($bodies as $body) {
            $form = $body->form;
            $at = $body->placement;
            if (!isset($numbers[$form])) {
                $numbers[$form] = \count($forms);
                [$ox, $oy] = null === $at ? [$x, $y] : [0.0, 0.0];
                $flat = [];
                foreach ($form->vertices as [$px, $py, $pz]) {
                    $flat[] = round($px - $ox, 2);
                    $flat[] = round($py - $oy, 2);
                    $flat[] = round($pz, 2);
                }
                $faces = [];
                foreach ($form->faces as $face) {
                    $faces[] = \count($face);
                    foreach ($face as $ring) {
                        array_push($faces, \count($ring), ...$ring);
                    }
                }
                $smooth = array_merge(...$form->smooth);
                $forms[] = ['vertices' => $flat, 'faces' => $faces] + ([] === $smooth ? [] : ['smooth' => $smooth]);
            }
            $told[] = [
                'kind' => $body->kind->value,
                'id' => $body->id,
                'form' => $numbers[$form],
                'at' => null === $at ? null : [$at->x - $x, $at->y - $y, $at->z, $at->cos, $at->sin],
            ];
        }

        return ['origin' => [$x, $y], 'forms' => $forms, 'bodies' => $told];
    }

    /** @return array<string, mixed> of a roof's upper side */
    public static function roof(string $id, Roof $roof): array
    {
        return [
            'id' => $id,
            'facets' => array_map(static fn (RoofFacet $f): array => [
                'edge' => $f->edge, 'areaM2' => $f->area() / 1e6, 'pitch' => rad2deg(acos(min(1.0, $f->planArea() / $f->area()))),
            ], array_values(array_filter($roof->facets, static fn (RoofFacet $f): bool => $f->isSlope && $f->planArea() > 1.0))),
            'lines' => array_map(
                static fn (RoofLine $l): array => [
                    'kind' => $l->kind->value,
                    'lengthMm' => $l->length(),
                    'from' => $l->from,
                    'to' => $l->to,
                ],
                $roof->lines,
            ),
            'eaves' => array_map(static fn (array $shape): array => $shape['outer'], Overlay::union(array_map(
                static fn (RoofFacet $f): array => array_map(static fn (array $c): array => [$c[0], $c[1]], $f->corners),
                array_values(array_filter($roof->facets, static fn (RoofFacet $f): bool => $f->isSlope && $f->planArea() > 1.0)),
            ))),
        ];
    }

    /** @return array<string, mixed> */
    public static function height(RoomHeight $height): array
    {
        return [
            'region' => $height->region,
            'leastMm' => round($height->leastMm, 3),
            'mostMm' => round($height->mostMm, 3),
            'openM2' => $height->openMm2 / 1e6,
            'typed' => $height->isTyped,
            'underStairsM2' => $height->underStairsMm2 / 1e6,
            'lowM2' => $height->lowMm2 / 1e6,
        ];
    }

    /** @return array<string, mixed> how large a surface with a finish is */
    public static function measured(FinishedSurface $surface): array
    {
        return ['id' => $surface->id, 'finish' => $surface->finish, 'storey' => $surface->storey, 'areaM2' => $surface->areaMm2 / 1e6];
    }

    /**
     * A surface as it is drawn: triangles to a hundredth of a millimetre about a place, and where of the pattern each corner lies.
     *
     * @param array{float, float} $origin
     *
     * @return array<string, mixed>
     */
    public static function surface(FinishedSurface $surface, array $origin): array
    {
        [$places, $pattern] = [[], []];
        foreach ($surface->places as $i => [$x, $y, $z]) {
            array_push($places, round($x - $origin[0], 2), round($y - $origin[1], 2), round($z, 2));
            array_push($pattern, round($surface->pattern[$i][0], 2), round($surface->pattern[$i][1], 2));
        }

        return [...self::measured($surface), 'places' => $places, 'pattern' => $pattern];
    }

    /** @return list<array<string, mixed>> what stairs are held against */
    public static function stairLimits(StairLimits $limits): array
    {
        return array_map(static fn (StairLimit $l): array => [
            'measure' => $l->measure->value, 'least' => $l->least, 'most' => $l->most, 'standing' => $l->standing,
        ], array_values($limits->limits));
    }

    /** @return array<string, mixed> a stair as a plan shows it, places to a hundredth of a millimetre */
    public static function stair(ShownStair $shown): array
    {
        [$form, $plan] = [$shown->form, $shown->plan];

        return [
            'id' => $form->stair->id,
            'goesUp' => $shown->goesUp,
            'heightMm' => round($form->height, 3),
            'riseMm' => round($form->rise, 3),
            'goingMm' => round($form->going(), 3),
            'runMm' => round($form->run(), 3),
            'widthMm' => round($form->width(), 3),
            'pitch' => round($form->pitch(), 3),
            'treads' => \count($form->treads),
            'seen' => array_map(self::line(...), $plan->seen),
            'beyond' => array_map(self::line(...), $plan->beyond),
            'cut' => null === $plan->cut ? null : self::line($plan->cut),
            'way' => self::line($plan->way),
            'numbers' => array_map(
                static fn (array $n): array => ['at' => self::place($n['at']), 'number' => $n['number']],
                $plan->numbers,
            ),
            'words' => $plan->words,
            'rings' => array_map(static fn (Tread $t): array => self::line($t->ring), $form->treads),
            'findings' => array_map(static fn (StairFinding $f): array => [
                'code' => $f->code, 'at' => self::place($f->at->toArray()), 'message' => $f->message, 'risers' => $f->risers,
            ], $shown->findings),
        ];
    }

    /**
     * @param list<array{float, float}> $line
     *
     * @return list<array{float, float}>
     */
    private static function line(array $line): array
    {
        return array_map(self::place(...), $line);
    }

    /**
     * @param array{float, float} $at
     *
     * @return array{float, float}
     */
    private static function place(array $at): array
    {
        return [round($at[0], 2), round($at[1], 2)];
    }

    /** @return array<string, mixed> */
    public static function refused(Refused $refused): array
    {
        return ['id' => $refused->id, 'message' => $refused->message];
    }

    /** @return array<string, mixed> */
    public static function sweep(ShownSweep $sweep): array
    {
        return [
            'id' => $sweep->id,
            'rings' => array_map(
                static fn (array $ring): array => array_map(static fn (array $p): array => [round($p[0], 2), round($p[1], 2)], $ring),
                $sweep->rings,
            ),
            'bottomMm' => round($sweep->bottom, 2),
        ];
    }
}
