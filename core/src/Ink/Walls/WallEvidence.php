<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Walls;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Numerics\Logistic;

/** What speaks for a stretch of a proposed wall being one. */
final readonly class WallEvidence
{
    /** Learnt from simulated sheets by bench/learn.php, on seeds apart from those reported. */
    private const WEIGHTS = [
        '' => -0.56, 'round' => 0.93, 'seen' => 2.14, 'wallSeen' => -0.62, 'met' => -0.01, 'long' => 0.27, 'like' => 1.57, 'thin' => -0.98,
        'thick' => 0.0, 'line' => 0.8, 'atEnd' => -0.73, 'bareEnd' => -0.83, 'bare' => -3.38,
    ];
    /** mm: thinner and thicker than this walls are rare; common practice, no source */
    public const USUAL_MM = [85.0, 420.0];
    /** mm: a wall of this length counts neither for it nor against */
    private const LENGTH_MM = 3000.0;
    /** A stretch that shows no more than this part of its wall is an opening, or drawn on beyond the building. */
    private const BARE = 0.1;
    /** what is less likely counts as this */
    private const LEAST = 0.001;

    /**
     * @param Point $from where the stretch begins on the centre line, mm
     * @param Point $to where it ends
     * @param bool $isOnRound whether it lies on a way round that walls close: rooms are evidence
     * @param float $seen part of the stretch where both faces show
     * @param float $wallSeen part of the whole wall
     * @param int $endsMet of both its ends, how many meet other walls
     * @param float $wallLength of the whole wall, mm
     * @param float $like part of all walls' length that is about as thick
     * @param float $thickness mm
     * @param float $line how likely the whole wall is one by how it shows and stands to others, 0 to 1
     * @param bool $isAtEnd whether it is the wall's first or last stretch
     */
    public function __construct(
        public Point $from,
        public Point $to,
        public bool $isOnRound,
        public float $seen,
        public float $wallSeen,
        public int $endsMet,
        public float $wallLength,
        public float $like,
        public float $thickness,
        public float $line,
        public bool $isAtEnd,
    ) {
    }

    /** mm */
    public function length(): float
    {
        return $this->from->distanceTo($this->to);
    }

    /** @return array<string, float> by the names of the weights */
    public function values(): array
    {
        return [
            'round' => $this->isOnRound ? 1.0 : 0.0,
            'seen' => $this->seen,
            'wallSeen' => $this->wallSeen,
            'met' => $this->endsMet / 2.0,
            'long' => log(max(100.0, $this->wallLength) / self::LENGTH_MM),
            'like' => $this->like,
            'thin' => $this->thickness < self::USUAL_MM[0] ? 1.0 : 0.0,
            'thick' => $this->thickness > self::USUAL_MM[1] ? 1.0 : 0.0,
            'line' => log(max(self::LEAST, $this->line) / max(self::LEAST, 1.0 - $this->line)),
            'atEnd' => $this->isAtEnd ? 1.0 : 0.0,
            'bareEnd' => $this->isAtEnd && $this->seen < self::BARE ? 1.0 : 0.0,
            'bare' => $this->seen < self::BARE ? 1.0 : 0.0,
        ];
    }

    /** @return float 0 to 1: on the sheets that it was learnt from so many with this evidence are walls */
    public function confidence(): float
    {
        return Logistic::of(self::WEIGHTS, $this->values());
    }
}
