<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Derivation\Internal;

use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Derivation\Finding;
use Plinth\Core\Plan\Derivation\WallShape;
use Plinth\Core\Plan\Editing\Mend;
use Plinth\Core\Plan\Editing\MendAct;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Plan\Network\Face;

/**
 * What walls look like between others, what their openings cut out of them, and what is wrong with either.
 *
 * @internal
 *
 * @phpstan-import-type Shape from Overlay
 */
final readonly class WallShapes
{
    /** Where walls join, their bodies share what lies within this part of both thicknesses: at 45° no more. */
    private const JOINT = 0.75;

    public function __construct(private Layer $layer)
    {
    }

    /** @param list<Opening> $ofWall */
    public function of(string $id, array $ofWall): ?WallShape
    {
        [$pieces, $faces, $bodies] = [$this->layer->pieces->ofWall($id), $this->layer->faces, $this->layer->bodies];
        $wall = $this->layer->pieces->wall($id);
        if (!$wall instanceof Wall) {
            return null;
        }
        $findings = [];
        if ([] === $pieces) {
            $findings[] = new Finding(
                'wall-of-no-length',
                [$id],
                $wall->from->toArray(),
                'This wall has no length: remove it, or move one of its ends.',
            );
        }
        $stretches = [];
        $area = 0.0;
        $junctions = [];
        foreach ($pieces as $piece) {
            foreach ($faces->network->along($piece) as $e) {
                $edge = $faces->network->edges[$e];
                // Where walls lie on each other the thicker one shows.
                if ($edge['wall'] !== $id) {
                    continue;
                }
                $junctions[] = $edge['at'];
                [$right, $left] = $faces->sides(2 * $e);
                [$from, $to] = [$faces->network->nodes[$edge['from']], $faces->network->nodes[$edge['to']]];
                $stretches[] = ['from' => $from, 'right' => $right, 'to' => $to, 'left' => $left];
                if ($bodies->isPlain($e)) {
                    $area += Polygon::area([$from, ...$right, $to, ...$left]);
                    $area += $this->bulge(2 * $e, $right) + $this->bulge(2 * $e + 1, $left);
                    continue;
                }
                $area += $bodies->area($e);
                $findings += $this->clashes($e, 1 === \count($pieces) && 1 === \count($faces->network->along($piece)));
            }
        }
        foreach ($faces->network->overlaps as [$first, $second, $at]) {
            if ($first === $id) {
                $findings['overlap '.$second] = $this->overlap($first, $second, $at);
            }
        }
        [$openings, $openingFindings] = [] === $pieces ? [[], []] : $this->openings($wall, $junctions, $ofWall);

        return new WallShape($id, $stretches, $area, $openings, [...array_values($findings), ...$openingFindings]);
    }

    /** @return list<Shape> what a wall covers of the plan that no other does */
    public function footprint(string $id): array
    {
        [$pieces, $faces, $bodies] = [$this->layer->pieces, $this->layer->faces, $this->layer->bodies];
        $parts = [];
        $chords = [];
        foreach ($pieces->ofWall($id) as $piece) {
            foreach ($faces->network->along($piece) as $e) {
                if ($faces->network->edges[$e]['wall'] !== $id) {
                    continue;
                }
                if (0.0 !== $faces->network->halves[2 * $e]['radius']) {
                    $chords[] = $e;
                } else {
                    array_push($parts, ...$bodies->footprint([$e]));
                }
            }
        }

        return [] === $chords ? $parts : $bodies->footprint($chords);
    }

    /**
     * Where the body of an edge runs into others: told once, by the wall whose id comes first.
     *
     * @param bool $isWhole whether the edge is all of its wall
     *
     * @return array<string, Finding>
     */
    private function clashes(int $edge, bool $isWhole): array
    {
        [$bodies, $network] = [$this->layer->bodies, $this->layer->network];
        $id = $network->edges[$edge]['wall'];
        $findings = [];
        if ($isWhole && null !== ($at = $bodies->tooShortAt($edge))) {
            $findings['short'] = new Finding(
                'wall-too-short',
                [$id],
                $at,
                'This wall is shorter than its neighbours are thick: make it longer, or let them meet without it.',
            );
        }
        $alongside = $bodies->alongside($edge);
        foreach ($alongside + $bodies->overlaps($edge) as $other => $at) {
            $second = $network->edges[$other]['wall'];
            $isSeen = isset($alongside[$other]) || (!$bodies->isSlight($edge, $other)
                && !$bodies->areJoinedByOneTooShort($edge, $other)
                && !$this->isJointOfArc($id, $second, $at));
            if (strcmp($second, $id) > 0 && $isSeen) {
                $findings["overlap $second"] = $this->overlap($id, $second, $at);
            }
        }

        return $findings;
    }

    /**
     * Whether two walls run into each other only where they join: chords of an arc are shorter than walls are thick, and who meets one of
     * them reaches the next.
     *
     * @param array{float, float} $at
     */
    private function isJointOfArc(string $first, string $second, array $at): bool
    {
        [$a, $b] = [$this->layer->pieces->wall($first), $this->layer->pieces->wall($second)];
        if (!$a instanceof Wall || !$b instanceof Wall || (null === $a->arc() && null === $b->arc())) {
            return false;
        }
        $reach = self::JOINT * ($a->thickness + $b->thickness);
        foreach ([[$a, $b], [$b, $a]] as [$one, $other]) {
            foreach ([$one->from, $one->to] as $end) {
                $isJoined = $end->distanceTo($other->nearest($end)) <= Wall::JOIN_MM;
                if ($isJoined && hypot($end->x - $at[0], $end->y - $at[1]) <= $reach) {
                    return true;
                }
            }
        }

        return false;
    }

    /** @param array{float, float} $at */
    private function overlap(string $first, string $second, array $at): Finding
    {
        [$a, $b] = [$this->layer->pieces->wall($first), $this->layer->pieces->wall($second)];
        $mend = $a instanceof Wall && $b instanceof Wall ? Mend::of($a, $b)->act : null;

        return new Finding('walls-overlap', [$first, $second], $at, match ($mend) {
            MendAct::Merge => 'Two walls lie on each other here, as if one had been traced twice: make them one.',
            MendAct::Beside => 'Two walls run into each other side by side here: move one aside.',
            MendAct::Trim => 'One wall runs into another here beside where they join: end it at the other’s line.',
            default => 'Two walls lie on each other here: remove one of them.',
        }, $mend);
    }

    /**
     * @param list<float> $junctions distances along the wall where others meet it
     * @param list<Opening> $openings of the wall
     *
     * @return array{array<string, non-empty-list<array{float, float}>>, list<Finding>}
     */
    private function openings(Wall $wall, array $junctions, array $openings): array
    {
        $pieces = [];
        $findings = [];
        $before = [];
        usort($openings, static fn (Opening $a, Opening $b): int => strcmp($a->id, $b->id));
        $length = $wall->length();
        // The chords' own joints are none.
        $chords = $wall->chords($length);
        $junctions = array_filter(
            $junctions,
            static fn (float $at): bool => 1 === $chords || abs($at * $chords / $length - round($at * $chords / $length)) > 1e-6,
        );
        foreach ($openings as $opening) {
            $start = $opening->offset;
            $end = $opening->offset + $opening->width;
            $pieces[$opening->id] = $wall->piece($start, $end);
            $middle = $wall->at(($start + $end) / 2.0)->toArray();
            if ($start < -Wall::JOIN_MM || $end > $length + Wall::JOIN_MM) {
                $findings[] = new Finding(
                    'opening-off-wall',
                    [$opening->id, $wall->id],
                    $middle,
                    'This opening reaches beyond the end of its wall.',
                );
            }
            foreach ($before as [$other, $s, $e]) {
                if ($start < $e && $s < $end) {
                    $findings[] = new Finding('openings-overlap', [$other, $opening->id], $middle, 'Two openings overlap here.');
                }
            }
            $before[] = [$opening->id, $start, $end];
            foreach ($junctions as $at) {
                if ($at > $start + Wall::JOIN_MM && $at < $end - Wall::JOIN_MM) {
                    $findings[] = new Finding(
                        'opening-on-junction',
                        [$opening->id, $wall->id],
                        $wall->at($at)->toArray(),
                        'Another wall meets this opening.',
                    );
                    break;
                }
            }
        }

        return [$pieces, $findings];
    }

    /**
     * What the right face of a half-edge has between its arc and its chord, mm².
     *
     * @param list<array{float, float}> $right
     */
    private function bulge(int $half, array $right): float
    {
        $faces = $this->layer->faces;
        $radius = $faces->leftRadius($half ^ 1);
        if (0.0 === $radius) {
            return 0.0;
        }
        ['dx' => $dx, 'dy' => $dy] = $faces->network->halves[$half];
        $ahead = ($right[1][0] - $right[0][0]) * $dx + ($right[1][1] - $right[0][1]) * $dy;

        // A corner that reaches beyond this chord takes back what is told again by the next one.
        return ($ahead < 0.0 ? 1.0 : -1.0) * Face::segment($radius, hypot($right[1][0] - $right[0][0], $right[1][1] - $right[0][1]));
    }
}
