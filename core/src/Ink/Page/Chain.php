<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Page;

/**
 * An edge that is followed from scan line to scan line.
 */
final class Chain
{
    /** part that each new place has in where the edge is expected next */
    private const FRESH = 0.12;

    public int $last;
    public int $count = 1;
    private float $sum;
    private float $sumI;
    private float $sumII;
    private float $sumIY;

    /** @param float $mean where the edge is expected next, cells */
    public function __construct(public readonly int $first, public float $mean)
    {
        $this->last = $first;
        $this->sum = $mean;
        $this->sumI = $first;
        $this->sumII = $first * $first;
        $this->sumIY = $first * $mean;
    }

    public function add(int $i, float $y): void
    {
        $this->last = $i;
        ++$this->count;
        $this->mean += self::FRESH * ($y - $this->mean);
        $this->sum += $y;
        $this->sumI += $i;
        $this->sumII += $i * $i;
        $this->sumIY += $i * $y;
    }

    /** Part of the scan lines from its first to its last where it was seen. */
    public function even(): float
    {
        return $this->count / ($this->last - $this->first + 1);
    }

    public function slope(): float
    {
        $d = $this->count * $this->sumII - $this->sumI ** 2;

        return $d > 0.0 ? ($this->count * $this->sumIY - $this->sumI * $this->sum) / $d : 0.0;
    }

    public function height(): float
    {
        return $this->sum / $this->count;
    }

    /** Height at a scan line by the straight line through the edge. */
    public function heightAt(float $i): float
    {
        return $this->height() + $this->slope() * ($i - $this->sumI / $this->count);
    }
}
