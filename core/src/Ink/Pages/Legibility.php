<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Pages;

use Plinth\Core\Units\Length;

/**
 * What can be read off a page at its resolution: how wide a thin partition shows, and how well its faces can be picked.
 *
 * 100 mm for a partition, and the widths below which faces run together, are common practice, no source.
 */
final readonly class Legibility
{
    /** mm, a partition as it is usually built: common practice, no source */
    public const PARTITION_MM = 100.0;
    /** Two standard deviations of a carefully picked face, px: half a pixel of ink edge, and the hand. */
    private const PICK_PX = 0.6;
    /** px that a partition is wide where its two faces are told apart with room to spare: two pens and paper between */
    private const CLEAR_PX = 6.0;
    /** px below which its two faces run into one line */
    private const COARSE_PX = 2.5;

    private function __construct(public float $partitionPx, public float $plusMinusMm, public string $words)
    {
    }

    /** @param float $mmPerPixel of the building, > 0 */
    public static function at(float $mmPerPixel): self
    {
        $px = self::PARTITION_MM / $mmPerPixel;
        $plusMinus = self::PICK_PX * $mmPerPixel;
        $size = $px >= 10.0 ? (string) round($px) : (string) round($px, 1);
        $error = Length::told($plusMinus);
        $words = match (true) {
            $px >= self::CLEAR_PX => \sprintf('Clear: a thin partition is about %s px wide; expect ±%s.', $size, $error),
            $px >= self::COARSE_PX => \sprintf('Coarse: a thin partition is about %s px wide; expect ±%s.', $size, $error),
            default => \sprintf(
                'Too coarse for partitions: a thin one is about %s px wide, its faces run together; expect ±%s. A finer scan would help.',
                $size,
                $error,
            ),
        };

        return new self($px, $plusMinus, $words);
    }
}
