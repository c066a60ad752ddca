<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Network;

use Plinth\Core\Plan\Model\Divider;
use Plinth\Core\Plan\Model\Wall;

/**
 * A straight piece of a wall's centre line, or a divider. An arc falls into chords whose half thickness is that of the
 * wall times cos(θ/2): mitred with each other, their faces have every corner exactly on the offset circles.
 */
final readonly class Piece
{
    /** @var array{string, string} names of its start and its end, in whose order ends are settled */
    public array $ends;

    /**
     * @param string $key wall and number, in whose order things are settled; begins so that no id is taken for a number
     * @param array{float, float} $a
     * @param array{float, float} $b
     * @param float $half mm
     * @param float $radius of its centre line, mm; positive where the centre lies to the left of a → b, 0 where it is straight
     * @param float $start distance of a from the wall's start, mm
     * @param float $length mm of the wall
     */
    public function __construct(
        public string $wall,
        public string $key,
        public array $a,
        public array $b,
        public float $half,
        public float $radius = 0.0,
        public float $start = 0.0,
        public float $length = 0.0,
        public bool $divides = false,
    ) {
        $this->ends = [$key."\0".'0', $key."\0".'1'];
    }

    /** @return list<self> none for what has no length */
    public static function of(Wall|Divider $line): array
    {
        $divides = $line instanceof Divider;
        [$arc, $half] = [$line->arc(), $divides ? 0.0 : $line->thickness / 2.0];
        $length = $arc?->length() ?? $line->from->distanceTo($line->to);
        if ($length <= Wall::JOIN_MM) {
            return [];
        }
        if (null === $arc) {
            return [
                new self($line->id, '='.$line->id, $line->from->toArray(), $line->to->toArray(), $half, 0.0, 0.0, $length, $divides),
            ];
        }
        $n = $arc->chords(Wall::CHORD_MM, $half);
        $radius = $arc->sweep > 0.0 ? $arc->radius : -$arc->radius;
        $half *= cos($arc->sweep / $n / 2.0);
        $pieces = [];
        $from = $line->from->toArray();
        for ($i = 0; $i < $n; ++$i) {
            $to = $i + 1 === $n ? $line->to->toArray() : $arc->at(($i + 1) / $n)->toArray();
            $key = '='.$line->id.\sprintf('#%05d', $i);
            $pieces[] = new self($line->id, $key, $from, $to, $half, $radius, $length * $i / $n, $length / $n, $divides);
            $from = $to;
        }

        return $pieces;
    }
}
