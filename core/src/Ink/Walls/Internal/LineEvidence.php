<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls\Internal;

use Plinth\Core\Ink\Walls\WallEvidence;
use Plinth\Core\Numerics\DisjointSets;

/**
 * What speaks for lines being walls: how each shows by itself, and how it stands to those that are taken for walls so far.
 *
 * @internal
 */
final class LineEvidence
{
    /** grey levels by which fillings alike differ */
    private const ONE_TONE = 40.0;
    /** part of a line that lies on another: both cannot be walls */
    public const ON_OTHER = 0.3;
    /** mm by which the faces of two lines beside each other may lie apart and be one */
    private const ONE_FACE_MM = 35.0;
    /** mm off a line from which on others stand to one side of it */
    private const BESIDE_MM = 200.0;
    /** degrees between directions that are one */
    private const ONE_WAY = 3.0;
    /** mm: thinner walls are partitions as a rule; common practice, no source */
    private const PARTITION_MM = 170.0;

    /** @var list<array<int, float>> line → others on whose bodies it lies, and with how much of it */
    private array $rivals = [];
    /** @var list<array<int, true>> line → others that share a face with it */
    private array $beside = [];
    /** @var list<array{array<int, true>, array<int, true>}> line → others that meet its beginning, and its end */
    private array $met = [];
    /** @var list<array<int, true>> line → others that end on it */
    private array $carries = [];
    /** @var list<float> */
    private array $seen = [];
    /** @var list<float> degrees of a quarter turn */
    private array $ways = [];

    /** @param list<WallLine> $lines */
    public function __construct(private readonly array $lines)
    {
        $this->rivals = $this->beside = $this->carries = array_fill(0, \count($lines), []);
        $this->met = array_fill(0, \count($lines), [[], []]);
        foreach ($lines as $i => $line) {
            $this->seen[] = $line->seen();
            [$ux, $uy] = $line->direction();
            $this->ways[] = fmod(rad2deg(atan2($uy, $ux)) + 360.0, 90.0);
            foreach ($lines as $k => $other) {
                if ($i !== $k) {
                    $this->relate($i, $line, $k, $other);
                }
            }
        }
    }

    private function relate(int $i, WallLine $line, int $k, WallLine $other): void
    {
        if ($line->isParallelTo($other)) {
            $overlap = $line->overlap($other);
            if ($overlap > 0.0) {
                $this->rivals[$i][$k] = $overlap;
            } elseif ($line->sharesFace($other, self::ONE_FACE_MM)) {
                $this->beside[$i][$k] = true;
            }
        }
        foreach ([$line->from, $line->to] as $end => $place) {
            if ($line->meets($other, $place)) {
                $this->met[$i][$end][$k] = true;
                if (!$line->isParallelTo($other)) {
                    $this->carries[$k][$i] = true;
                }
            }
        }
    }

    /** @return array<int, float> others on whose bodies a line lies, and with how much of it */
    public function rivals(int $line): array
    {
        return $this->rivals[$line];
    }

    /** @return list<array<string, float>> what each line shows by itself, by name */
    public function alone(): array
    {
        return array_map(static function (WallLine $line): array {
            $length = max(1.0, $line->length());
            $t = max(10.0, $line->thickness);

            return [
                'seen' => log(max(50.0, $line->seen()) / 1000.0),
                'part' => $line->seen() / $length,
                'long' => log(max(50.0, $length) / 1000.0),
                'thin' => $t < WallEvidence::USUAL_MM[0] ? 1.0 : 0.0,
                'partition' => $t >= WallEvidence::USUAL_MM[0] && $t < self::PARTITION_MM ? 1.0 : 0.0,
                'thick' => $t > WallEvidence::USUAL_MM[1] ? 1.0 : 0.0,
                'thickness' => log($t / 150.0),
                'solid' => Filling::Solid === $line->look->filling ? 1.0 : 0.0,
                'empty' => Filling::Empty === $line->look->filling ? 1.0 : 0.0,
                'hatched' => $line->look->isHatched ? 1.0 : 0.0,
                'wear' => $line->look->wear,
                'even' => $line->look->even,
                'pen' => max(-2.0, min(1.0, $line->look->pen)),
                'slender' => log($length / $t),
                'stretch' => log(max(10.0, $line->longest()) / $t),
            ];
        }, $this->lines);
    }

    /**
     * How each line stands to those taken for walls, by name.
     *
     * @param list<float> $confidence of each line so far, 0 to 1
     * @param array<int, true> $taken those taken for walls
     *
     * @return list<array<string, float>>
     */
    public function among(array $confidence, array $taken): array
    {
        $groups = new DisjointSets();
        foreach (array_keys($taken) as $i) {
            foreach ([0, 1] as $end) {
                foreach (array_keys($this->met[$i][$end]) as $k) {
                    if (isset($taken[$k])) {
                        $groups->unite($i, $k);
                    }
                }
            }
        }
        $sizes = [];
        foreach (array_keys($taken) as $i) {
            $sizes[$groups->root($i)] = ($sizes[$groups->root($i)] ?? 0.0) + $this->seen[$i];
        }
        $found = [];
        foreach ($this->lines as $i => $line) {
            $found[] = $this->one($i, $line, $confidence, $taken, $groups, $sizes);
        }

        return $found;
    }

    /**
     * @param list<float> $confidence
     * @param array<int, true> $taken
     * @param array<int, float> $sizes
     *
     * @return array<string, float>
     */
    private function one(int $i, WallLine $line, array $confidence, array $taken, DisjointSets $groups, array $sizes): array
    {
        [$all, $like, $alike, $manner, $way, $left, $right] = [1.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0];
        [$ux, $uy] = $line->direction();
        foreach (array_keys($taken) as $k) {
            if ($k === $i || isset($this->rivals[$i][$k])) {
                continue;
            }
            $other = $this->lines[$k];
            $weight = $confidence[$k] * $this->seen[$k];
            $all += $weight;
            $isLike = abs($other->thickness - $line->thickness) <= WallLine::LIKE * $line->thickness;
            $isOneManner = $other->look->filling === $line->look->filling && abs($other->look->tone - $line->look->tone) <= self::ONE_TONE;
            $like += $isLike ? $weight : 0.0;
            $alike += $isLike && $isOneManner ? $weight : 0.0;
            $manner += $isOneManner ? $weight : 0.0;
            $way += abs(fmod($this->ways[$i] - $this->ways[$k] + 135.0, 90.0) - 45.0) <= self::ONE_WAY ? $weight : 0.0;
            $off = (($other->from->y + $other->to->y) / 2.0 - $line->from->y) * $ux
                - (($other->from->x + $other->to->x) / 2.0 - $line->from->x) * $uy;
            $left += $off > self::BESIDE_MM ? $weight : 0.0;
            $right += $off < -self::BESIDE_MM ? $weight : 0.0;
        }
        $most = fn (array $others): float => max([0.0, ...array_map(
            fn (int $k): float => isset($taken[$k]) && !isset($this->rivals[$i][$k]) ? $confidence[$k] : 0.0,
            array_keys($others),
        )]);
        [$from, $to] = [$most($this->met[$i][0]), $most($this->met[$i][1])];
        $carries = 0.0;
        foreach (array_keys($this->carries[$i]) as $k) {
            $carries += isset($taken[$k]) ? $confidence[$k] : 0.0;
        }
        [$rival, $longer] = [0.0, -3.0];
        foreach ($this->rivals[$i] as $k => $overlap) {
            if (isset($taken[$k])) {
                $rival = max($rival, $overlap * $confidence[$k]);
                $longer = max($longer, $overlap * $confidence[$k] * max(-3.0, log($this->seen[$k] / max(1.0, $this->seen[$i]))));
            }
        }
        $group = [];
        foreach ([$this->met[$i][0], $this->met[$i][1], $this->carries[$i]] as $others) {
            foreach (array_keys($others) as $k) {
                if (isset($taken[$k]) && !isset($this->rivals[$i][$k])) {
                    $group[$groups->root($k)] = true;
                }
            }
        }
        $joined = array_sum(array_map(static fn (int $root): float => $sizes[$root], array_keys($group)));

        return [
            'like' => $like / $all,
            'alike' => $alike / $all,
            'manner' => $manner / $all,
            'way' => $way / $all,
            'inner' => min($left, $right) / $all,
            'beyond' => max($left, $right) / $all,
            'met' => max($from, $to),
            'metBoth' => min($from, $to),
            'carries' => log(1.0 + $carries),
            'rival' => $rival,
            'longer' => $longer,
            'beside' => $most($this->beside[$i]),
            'group' => min(1.0, $joined / max(1.0, array_sum($sizes))),
        ];
    }
}
