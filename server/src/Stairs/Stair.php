<?php

declare(strict_types=1);

namespace Plinth\Server\Stairs;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Motion;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Stair as CoreStair;
use Plinth\Core\Plan\Model\StairBuild;
use Plinth\Core\Plan\Model\StairPosts;
use Plinth\Core\Plan\Model\StairTurn;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Project\DrawnOnStorey;
use Plinth\Server\Project\OnStorey;
use Plinth\Server\Project\Places;
use Plinth\Server\Project\Storey;
use Plinth\Server\Source\Drawing;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A stair that goes up from a storey, by its walking line or by treads of their own shapes; mm. */
#[Kind('stair')]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'storey'])]
#[ORM\Index(fields: ['project', 'reaches'])]
#[ORM\Index(fields: ['project', 'drawing'])]
class Stair extends ProjectRow implements OnStorey, DrawnOnStorey
{
    #[Refers(Storey::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $storey;

    /** where it arrives; the next storey above without it */
    #[Refers(Storey::class, then: WhenGone::LetsGo)]
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    private ?Uuid $reaches = null;

    /** the drawing it was traced over; null once that is gone */
    #[Refers(Drawing::class, then: WhenGone::LetsGo)]
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    private ?Uuid $drawing = null;

    #[ORM\Column(type: Types::TEXT)]
    private string $line = '';

    #[ORM\Column(type: Types::TEXT)]
    private string $treads = '';

    #[ORM\Column]
    private float $width = 0.0;

    #[ORM\Column]
    private int $risers = 2;

    #[ORM\Column(length: 7)]
    private StairTurn $turn = StairTurn::Landing;

    #[ORM\Column]
    private int $winders = 3;

    #[ORM\Column(length: 7)]
    private StairBuild $build = StairBuild::Slab;

    #[ORM\Column]
    private float $thickness = 0.0;

    #[ORM\Column]
    private float $nosing = 0.0;

    #[ORM\Column(length: 5)]
    private StairRail $rails = StairRail::None;

    #[ORM\Column]
    private float $railHeight = 0.0;

    #[ORM\Column(length: 6, options: ['default' => 'gap'])]
    private StairPosts $posts = StairPosts::Gap;

    #[ORM\Column(options: ['default' => CoreStair::GAP_MM])]
    private float $postsBy = CoreStair::GAP_MM;

    #[ORM\Column]
    private float $headroom = 0.0;

    public static function onStorey(): string
    {
        return 'r.storey = :storey';
    }

    public function values(): array
    {
        return [
            'storey' => $this->storey->toRfc4122(), 'reaches' => $this->reaches?->toRfc4122(),
            'drawing' => $this->drawing?->toRfc4122(), 'line' => $this->line,
            'treads' => $this->treads, 'width' => $this->width, 'risers' => $this->risers, 'turn' => $this->turn->value,
            'winders' => $this->winders, 'build' => $this->build->value, 'thickness' => $this->thickness, 'nosing' => $this->nosing,
            'rails' => $this->rails->value, 'railHeight' => $this->railHeight, 'posts' => $this->posts->value, 'postsBy' => $this->postsBy,
            'headroom' => $this->headroom,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->storey = $values->id('storey');
        $this->reaches = $values->optionalId('reaches');
        $this->drawing = $values->optionalId('drawing');
        $this->line = trim($values->text('line', Places::LONGEST));
        $this->treads = trim($values->text('treads', Places::LONGEST));
        $this->width = $values->positive('width', CoreStair::WIDEST_MM);
        $this->risers = $values->count('risers');
        if ($this->risers < 2 || $this->risers > CoreStair::MOST_RISERS) {
            throw UnreadableDocument::outOfRange($values->at('risers'), \sprintf('2 to %d risers', CoreStair::MOST_RISERS));
        }
        $this->turn = $values->choiceOr('turn', StairTurn::Landing);
        $this->winders = $values->countOr('winders', 3);
        if ($this->winders < 2 || $this->winders > 12) {
            throw UnreadableDocument::outOfRange($values->at('winders'), '2 to 12 winders');
        }
        $this->build = $values->choiceOr('build', StairBuild::Slab);
        $this->thickness = $values->positive('thickness', 2000.0);
        $this->nosing = $values->notNegative('nosing');
        if ($this->nosing > 200.0) {
            throw UnreadableDocument::outOfRange($values->at('nosing'), 'at most 200 mm');
        }
        $this->rails = $values->choiceOr('rails', StairRail::None);
        $this->railHeight = $values->positive('railHeight', 5000.0);
        $this->takePosts($values);
        $this->headroom = $values->positive('headroom', 10_000.0);
        // What cannot be read is refused when it comes in.
        $line = Places::read($this->line, $values->at('line'));
        $treads = $this->shapes($values->at('treads'));
        if ([] === $treads && \count($line) < 2) {
            throw UnreadableDocument::outOfRange($values->at('line'), 'two places or more, or treads');
        }
    }

    private function takePosts(RowValues $values): void
    {
        $by = $values->optionalPositive('postsBy', 5000.0);
        $this->posts = $values->choiceOr('posts', $this->posts);
        if (StairPosts::Gap !== $this->posts && $by > CoreStair::MOST_RISERS) {
            throw UnreadableDocument::outOfRange($values->at('postsBy'), \sprintf('at most %d', CoreStair::MOST_RISERS));
        }
        $this->postsBy = $by ?? (StairPosts::Gap === $this->posts ? CoreStair::GAP_MM : 1.0);
    }

    public function movedBy(Motion $motion): array
    {
        return $this->mapped(static fn (Point $p, float $rise): array => [$motion->of($p), $motion->rise($rise)]);
    }

    /**
     * @param \Closure(Point, float): array{Point, float} $elsewhere of a place and the rise of its edge
     *
     * @return array{line: string, treads: string}
     */
    public function mapped(\Closure $elsewhere): array
    {
        return ['line' => Places::mapped($this->line, $elsewhere), 'treads' => Places::mapped($this->treads, $elsewhere)];
    }

    /** @param bool $isAlone whether no other storey is there to arrive at */
    public function stands(bool $isAlone = false): CoreStair
    {
        $line = Places::read($this->line, 'line');

        return new CoreStair(
            $this->id->toRfc4122(),
            array_column($line, 0),
            array_column($line, 1),
            $this->width,
            $this->risers,
            $this->shapes('treads'),
            $this->turn,
            $this->winders,
            $this->build,
            $this->thickness,
            $this->nosing,
            \in_array($this->rails, [StairRail::Left, StairRail::Both], true),
            \in_array($this->rails, [StairRail::Right, StairRail::Both], true),
            $this->railHeight,
            $this->headroom,
            $isAlone ? null : $this->reaches?->toRfc4122(),
            $this->posts,
            $this->postsBy,
        );
    }

    /** @return list<Contour> */
    private function shapes(string $at): array
    {
        $shapes = [];
        foreach ('' === $this->treads ? [] : explode('|', $this->treads) as $text) {
            $round = Places::read($text, $at);
            if (\count($round) < 3 || \count($shapes) >= CoreStair::MOST_RISERS) {
                throw UnreadableDocument::outOfRange($at, \sprintf('three places or more for each of at most %d treads', CoreStair::MOST_RISERS));
            }
            $shapes[] = new Contour(array_map(static fn (array $p): Point => $p[0], $round), array_column($round, 1));
        }

        return $shapes;
    }
}
