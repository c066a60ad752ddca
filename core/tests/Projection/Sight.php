<?php

declare(strict_types=1);

namespace Plinth\Core\Tests\Projection;

use Plinth\Core\Bodies\Body;
use Plinth\Core\Bodies\BodyKind;
use Plinth\Core\Geometry\Newell;
use Plinth\Core\Geometry\Point;

/**
 * What one sees along single sight lines: the oracle that drawn views are held against. It knows nothing of edges, planes in common or what
 * lies before what: each sight line is cut with all faces.
 *
 * @phpstan-type Seen array{kind: BodyKind|null, isCut: bool, depth: float, normal: array{float, float, float}, slope: array{float, float}, body: int, wide: float}
 */
final class Sight
{
    /** @var list<array{rings: list<list<array{float, float}>>, plane: array{float, float, float}, normal: array{float, float, float}, box: array{float, float, float, float}, body: int, wide: float}> */
    private array $faces = [];
    private readonly float $level;
    private readonly float $down;

    /**
     * @param list<Body> $bodies
     * @param float|null $cut depth behind the line of a section's cut
     * @param float $tilt how far down one looks, degrees
     */
    public function __construct(private readonly array $bodies, Point $from, Point $to, private readonly ?float $cut = null, float $tilt = 0.0)
    {
        [$this->level, $this->down] = [cos(deg2rad($tilt)), sin(deg2rad($tilt))];
        $length = $from->distanceTo($to);
        [$ux, $uy] = [($to->x - $from->x) / $length, ($to->y - $from->y) / $length];
        foreach ($bodies as $number => $body) {
            $mesh = $body->mesh();
            foreach ($mesh->faces as $face) {
                [$rings, $ahead] = [[], []];
                foreach ($face as $ring) {
                    $rings[] = array_map(function (int $v) use ($mesh, $from, $ux, $uy, &$ahead): array {
                        [$x, $y, $z] = $mesh->vertices[$v];
                        $ahead[] = $w = ($y - $from->y) * $ux - ($x - $from->x) * $uy;

                        // Turned about the line that one stands on.
                        return [($x - $from->x) * $ux + ($y - $from->y) * $uy, $z * $this->level + $w * $this->down, $w * $this->level - $z * $this->down];
                    }, $ring);
                }
                [$nu, $nv, $nw] = Newell::normal($rings[0]);
                $size = sqrt($nu ** 2 + $nv ** 2 + $nw ** 2);
                if ($size < 1e-9 || abs($nw) / $size < 1e-5) {
                    continue;
                }
                [$u, $v, $w] = $rings[0][0];
                $all = array_merge(...$rings);
                \assert([] !== $all && [] !== $ahead);
                $this->faces[] = [
                    'rings' => array_map(static fn (array $r): array => array_map(static fn (array $p): array => [$p[0], $p[1]], $r), $rings),
                    'plane' => [-$nu / $nw, -$nv / $nw, $w + $nu / $nw * $u + $nv / $nw * $v],
                    'normal' => [$nu / $size, $nv / $size, $nw / $size],
                    'box' => [min(array_column($all, 0)), min(array_column($all, 1)), max(array_column($all, 0)), max(array_column($all, 1))],
                    'body' => $number,
                    'wide' => hypot(
                        max(array_column($all, 0)) - min(array_column($all, 0)),
                        max($ahead) - min($ahead),
                    ),
                ];
            }
        }
    }

    /** @return array{float, float, float, float} */
    public function box(): array
    {
        $boxes = array_column($this->faces, 'box');
        \assert([] !== $boxes);

        return [min(array_column($boxes, 0)), min(array_column($boxes, 1)), max(array_column($boxes, 2)), max(array_column($boxes, 3))];
    }

    /** The same of what comes into a box alone. */
    public function within(float $u0, float $v0, float $u1, float $v1): self
    {
        $part = clone $this;
        $part->faces = array_values(array_filter(
            $this->faces,
            static fn (array $f): bool => $f['box'][0] <= $u1 && $f['box'][2] >= $u0 && $f['box'][1] <= $v1 && $f['box'][3] >= $v0,
        ));

        return $part;
    }

    /** @return Seen */
    public function at(float $u, float $v): array
    {
        $nearest = ['kind' => null, 'isCut' => false, 'depth' => \INF, 'normal' => [0.0, 0.0, 0.0], 'slope' => [0.0, 0.0], 'body' => -1, 'wide' => 0.0];
        $before = [];
        foreach ($this->faces as $face) {
            [$u0, $v0, $u1, $v1] = $face['box'];
            if ($u < $u0 || $u > $u1 || $v < $v0 || $v > $v1 || !self::isInside($face['rings'], $u, $v)) {
                continue;
            }
            $depth = $face['plane'][0] * $u + $face['plane'][1] * $v + $face['plane'][2];
            if (null !== $this->cut && $depth < $this->cut) {
                $before[$face['body']] = ($before[$face['body']] ?? 0) + 1;
            } elseif ($face['normal'][2] > 0.0 && $depth < $nearest['depth']) {
                $nearest = [
                    'kind' => $this->bodies[$face['body']]->kind, 'isCut' => false, 'depth' => $depth, 'normal' => $face['normal'],
                    'slope' => [$face['plane'][0], $face['plane'][1]], 'body' => $face['body'], 'wide' => $face['wide'],
                ];
            }
        }
        foreach ($before as $body => $count) {
            if (1 === $count % 2) {
                return ['isCut' => true, 'kind' => $this->bodies[$body]->kind, 'depth' => $this->cut ?? 0.0, 'body' => $body] + $nearest;
            }
        }

        return $nearest;
    }

    /**
     * Whether a line belongs between two places that lie so near to each other.
     *
     * @param bool $isSureOnly whether it has to be there: between chords of what is round none has to
     */
    public function differ(float $u1, float $v1, float $u2, float $v2, bool $isSureOnly = false): bool
    {
        [$a, $b] = [$this->at($u1, $v1), $this->at($u2, $v2)];
        if ($a['kind'] !== $b['kind'] || $a['isCut'] !== $b['isCut']) {
            return true;
        }
        if ($a['isCut'] || null === $a['kind']) {
            return false;
        }
        $along = $a['depth'] + $a['slope'][0] * ($u2 - $u1) + $a['slope'][1] * ($v2 - $v1);
        $turned = abs($a['normal'][0] - $b['normal'][0]) + abs($a['normal'][1] - $b['normal'][1]) + abs($a['normal'][2] - $b['normal'][2]);

        // How far faces lean from upright, however one looks.
        [$leanA, $leanB] = array_map(fn (array $of): float => abs($of[1] * $this->level - $of[2] * $this->down), [$a['normal'], $b['normal']]);
        $isUpright = $leanA + $leanB < 1e-6;
        $turns = $a['normal'][0] * $b['normal'][0] + $a['normal'][1] * $b['normal'][1] + $a['normal'][2] * $b['normal'][2];
        $isRound = $a['body'] === $b['body'] && $isUpright && $turns > 0.906 && abs($a['wide'] - $b['wide']) < 0.02 * $a['wide'];
        if ($isSureOnly && $isRound && abs($along - $b['depth']) < 2.0) {
            return false;
        }

        return $turned > 2e-5 || abs($along - $b['depth']) * $a['normal'][2] > 0.006;
    }

    /** @param list<list<array{float, float}>> $rings */
    private static function isInside(array $rings, float $u, float $v): bool
    {
        $inside = false;
        foreach ($rings as $ring) {
            [$pu, $pv] = $ring[\count($ring) - 1];
            foreach ($ring as [$qu, $qv]) {
                if (($qv > $v) !== ($pv > $v) && $u < ($pu - $qu) * ($v - $qv) / ($pv - $qv) + $qu) {
                    $inside = !$inside;
                }
                [$pu, $pv] = [$qu, $qv];
            }
        }

        return $inside;
    }
}
