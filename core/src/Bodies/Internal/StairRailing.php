<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies\Internal;

use Plinth\Core\Plan\Model\StairBuild;
use Plinth\Core\Plan\Model\StairPosts;
use Plinth\Core\Stairs\StairForm;
use Plinth\Core\Stairs\Tread;

/**
 * Rails along the edges of a stair: a handrail that runs up beside the treads, and posts under it that each stand on one of them.
 *
 * @internal
 *
 * @phpstan-import-type Ring from Cut
 * @phpstan-import-type Strip from StairEdge
 */
final readonly class StairRailing
{
    /** How broad rails are, and posts along them, mm; common practice, no source. */
    private const RAIL_MM = 40.0;
    private const POST_MM = 20.0;
    /** One that lies lower would lie in the treads. */
    private const LOWEST_MM = 150.0;
    /** A post that would end so near to a corner of the edge ends there, mm. */
    private const JOINT_MM = 2.0;

    private StairEdge $edge;

    public function __construct(private StairForm $form, private float $base)
    {
        $this->edge = new StairEdge($form, $base);
    }

    /** @return list<Cell> */
    public function cells(): array
    {
        $stair = $this->form->stair;
        $cells = [];
        foreach ([[$stair->leftRail, true], [$stair->rightRail, false]] as [$has, $isLeft]) {
            if (!$has || $stair->railHeight < self::LOWEST_MM) {
                continue;
            }
            $strips = array_map(fn (Tread $t): array => $this->edge->strips($t, $isLeft, self::RAIL_MM), $this->form->treads);
            $posts = $this->posts(array_map(self::length(...), $strips));
            foreach ($this->form->treads as $i => $tread) {
                foreach ($strips[$i] as $strip) {
                    array_push($cells, ...$this->along($strip, $tread, $posts[$i]));
                }
            }
        }

        return $cells;
    }

    /** @param list<Strip> $strips */
    private static function length(array $strips): float
    {
        [, , $p, $q, $begins] = $strips[\count($strips) - 1] ?? [[], null, [0.0, 0.0], [0.0, 0.0], 0.0];

        return $begins + hypot($q[0] - $p[0], $q[1] - $p[1]);
    }

    /**
     * Where posts stand on each tread, along its edge.
     *
     * @param non-empty-list<float> $lengths mm, of the edge along each tread
     *
     * @return non-empty-list<list<float>> mm from where the edge begins on a tread to where a post does
     */
    private function posts(array $lengths): array
    {
        $by = $this->form->stair->postsBy;
        $total = array_sum($lengths);
        $last = \count($lengths) - 1;
        $room = array_filter($lengths, static fn (float $l): bool => $l >= self::POST_MM);

        return match ($this->form->stair->posts) {
            StairPosts::Treads => array_map(
                static fn (float $l, int $i): array => isset($room[$i]) && (0 === $i % max(1, (int) round($by)) || $i === $last)
                    ? [($l - self::POST_MM) / 2.0]
                    : [],
                $lengths,
                array_keys($lengths),
            ),
            StairPosts::Number => self::evenly($lengths, max(1, (int) round($by))),
            // Where there is room for it on each tread, all treads have them alike.
            StairPosts::Gap => $by + self::POST_MM <= $total / max(1, \count($room))
                ? array_map(static fn (float $l): array => self::alike($l, $by), $lengths)
                : self::evenly($lengths, 1 + (int) ceil(max(0.0, $total - self::POST_MM) / ($by + self::POST_MM))),
        };
    }

    /**
     * Half a gap, a post, a gap, a post … and half a gap.
     *
     * @return list<float>
     */
    private static function alike(float $length, float $clear): array
    {
        $count = $length < self::POST_MM ? 0 : (int) max(1.0, ceil($length / ($clear + self::POST_MM)));
        $step = $length / max(1, $count);

        return 0 === $count ? [] : array_map(static fn (int $k): float => ($k + 0.5) * $step - self::POST_MM / 2.0, range(0, $count - 1));
    }

    /**
     * So many over the whole edge, the first and the last at its ends; each moved so far that it stands on one tread.
     *
     * @param non-empty-list<float> $lengths
     *
     * @return non-empty-list<list<float>>
     */
    private static function evenly(array $lengths, int $count): array
    {
        $free = array_sum($lengths) - self::POST_MM;
        $posts = array_map(static fn (): array => [], $lengths);
        for ($k = 0; $k < $count; ++$k) {
            $from = 1 === $count ? $free / 2.0 : $k * $free / ($count - 1);
            $begins = 0.0;
            foreach ($lengths as $i => $length) {
                if ($length >= self::POST_MM && $from + self::POST_MM / 2.0 <= $begins + $length + 1e-6) {
                    $at = max(0.0, min($length - self::POST_MM, $from - $begins));
                    // One place takes one post.
                    if ([] === $posts[$i] || $at >= end($posts[$i]) + self::POST_MM + self::JOINT_MM) {
                        $posts[$i][] = $at;
                    }
                    break;
                }
                $begins += $length;
            }
        }

        return $posts;
    }

    /**
     * @param Strip $strip
     * @param list<float> $posts
     *
     * @return list<Cell>
     */
    private function along(array $strip, Tread $tread, array $posts): array
    {
        [$ring, $line, [$ax, $ay], [$bx, $by], $begins] = $strip;
        $length = hypot($bx - $ax, $by - $ay);
        $stair = $this->form->stair;
        $rail = [$line->raised($stair->railHeight - self::RAIL_MM), $line->raised($stair->railHeight)];
        $level = HeightPlane::level($this->base + $this->form->level($tread));
        $post = [StairBuild::Strings === $stair->build ? $line->raised(StairBody::OVER_MM) : $level, $rail[1]];
        $ends = [];
        foreach ($posts as $at) {
            array_push($ends, [$at, $rail], [$at + self::POST_MM, $post]);
        }
        $cells = [];
        $rest = [$ring];
        foreach ([...$ends, [\INF, $rail]] as [$end, $span]) {
            if ($end <= $begins + self::JOINT_MM) {
                continue;
            }
            $isLast = $end >= $begins + $length - self::JOINT_MM;
            $part = ($end - $begins) / $length;
            $on = [$ax + $part * ($bx - $ax), $ay + $part * ($by - $ay)];
            [$pieces, $after] = [$isLast ? $rest : [], []];
            foreach ($isLast ? [] : $rest as $piece) {
                [$before, $behind] = Cut::line($piece, $on, [-($by - $ay), $bx - $ax]);
                array_push($pieces, ...$before);
                array_push($after, ...$behind);
            }
            foreach ($pieces as $piece) {
                $cells[] = new Cell([$piece], [$span]);
            }
            $rest = $after;
            if ($isLast) {
                break;
            }
        }

        return $cells;
    }
}
