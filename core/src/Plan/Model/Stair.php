<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Model;

use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Exception\UnusableValue;
use Plinth\Core\Plan\Model\Internal\Checked;

/**
 * A stair as it is drawn on the storey from which it goes up: by its walking line and width, or tread by tread, each of its own shape.
 *
 * All treads change together: how many, how wide, how thick. How high each rises follows from the storeys.
 */
final readonly class Stair
{
    public const MOST_RISERS = 200;
    public const WIDEST_MM = 20_000.0;
    /** That no sphere of 100 mm passes: Approved Document K, from memory. */
    public const GAP_MM = 95.0;

    /**
     * @param list<Point> $line mm, walking line in the middle of its width from the first riser to the last; none where treads are traced
     * @param list<float> $rises of the line's edges over their chords, mm, positive to the left; 0 or none for a straight one
     * @param float $width mm
     * @param int $risers from floor to floor
     * @param list<Contour> $treads traced one by one, from below
     * @param StairTurn $turn what lies at corners of the line
     * @param int $winders treads at a corner, where it has winders
     * @param float $thickness mm: of the slab, square to its soffit; of treads on strings or open
     * @param float $nosing mm by which each tread reaches over the one below it
     * @param bool $leftRail whether a rail runs along its left edge going up
     * @param float $railHeight mm over the line of nosings
     * @param float $headroom mm that is kept free over its treads: the floor above is open where it would be less
     * @param float $postsBy mm, a number of posts, or of treads, as its posts are set out; without it the gap is 95 mm
     * @param string|null $reaches storey where it arrives; the next one above without it
     *
     * @throws UnusableValue
     */
    public function __construct(
        public string $id,
        public array $line,
        public array $rises,
        public float $width,
        public int $risers,
        public array $treads = [],
        public StairTurn $turn = StairTurn::Landing,
        public int $winders = 3,
        public StairBuild $build = StairBuild::Slab,
        public float $thickness = 150.0,
        public float $nosing = 0.0,
        public bool $leftRail = false,
        public bool $rightRail = false,
        public float $railHeight = 900.0,
        public float $headroom = 2000.0,
        public ?string $reaches = null,
        public StairPosts $posts = StairPosts::Gap,
        public float $postsBy = self::GAP_MM,
    ) {
        Checked::places("stair $id", ...$line);
        Checked::size("stair $id/width", $width, self::WIDEST_MM);
        Checked::size("stair $id/thickness", $thickness, 2000.0);
        Checked::within("stair $id/nosing", $nosing, 200.0);
        Checked::size("stair $id/railHeight", $railHeight, 5000.0);
        Checked::size("stair $id/headroom", $headroom, 10_000.0);
        if ($risers < 2 || $risers > self::MOST_RISERS) {
            throw UnusableValue::outOfRange("stair $id/risers", $risers, \sprintf('2 to %d', self::MOST_RISERS));
        }
        if ($winders < 2 || $winders > 12) {
            throw UnusableValue::outOfRange("stair $id/winders", $winders, '2 to 12');
        }
        Checked::size("stair $id/postsBy", $postsBy, StairPosts::Gap === $posts ? 5000.0 : self::MOST_RISERS);
        foreach ($rises as $rise) {
            Checked::within("stair $id/rises", $rise);
        }
        foreach ($treads as $tread) {
            Checked::places("stair $id/treads", ...$tread->corners);
        }
    }

    /** Whether each tread has its own shape. */
    public function isFree(): bool
    {
        return [] !== $this->treads;
    }

    /**
     * The storey where it arrives: the one it is said to reach, if that is higher, and otherwise the next above.
     *
     * @param iterable<Storey> $storeys of the building
     */
    public function arrival(Storey $on, iterable $storeys): ?Storey
    {
        $next = null;
        foreach ($storeys as $storey) {
            if ($storey->elevation > $on->elevation) {
                if ($storey->id === $this->reaches) {
                    return $storey;
                }
                $next = null === $next || $storey->elevation < $next->elevation ? $storey : $next;
            }
        }

        return $next;
    }
}
