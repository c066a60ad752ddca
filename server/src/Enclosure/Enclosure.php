<?php

declare(strict_types=1);

namespace Plinth\Server\Enclosure;

use Doctrine\DBAL\Types\Types;
use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Motion;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Enclosure as CoreEnclosure;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Project\Arrangeable;
use Plinth\Server\Project\DrawnOnStorey;
use Plinth\Server\Project\OnStorey;
use Plinth\Server\Project\Places;
use Plinth\Server\Project\Storey;
use Plinth\Server\Source\Drawing;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** An area of a storey with a class of fire resistance: the rooms that name it, or what its outline goes round. */
#[Kind('enclosure')]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'storey'])]
#[ORM\Index(fields: ['project', 'fireClass'])]
#[ORM\Index(fields: ['project', 'drawing'])]
class Enclosure extends ProjectRow implements OnStorey, DrawnOnStorey, Arrangeable
{
    #[Refers(Storey::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $storey;

    #[Refers(FireClass::class)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $fireClass;

    /** the drawing its outline was traced over; null once that is gone */
    #[Refers(Drawing::class, then: WhenGone::LetsGo)]
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    private ?Uuid $drawing = null;

    /** corners of its outline; none where it is of rooms */
    #[ORM\Column(type: Types::TEXT)]
    private string $line = '';

    public static function onStorey(): string
    {
        return 'r.storey = :storey';
    }

    public function values(): array
    {
        return [
            'storey' => $this->storey->toRfc4122(), 'fireClass' => $this->fireClass->toRfc4122(),
            'drawing' => $this->drawing?->toRfc4122(), 'line' => $this->line,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->storey = $values->id('storey');
        $this->fireClass = $values->id('fireClass');
        $this->drawing = $values->optionalId('drawing');
        $this->line = trim($values->text('line', Places::LONGEST));
        $corners = Places::read($this->line, $values->at('line'));
        $outline = [] === $corners ? null : new Contour(array_column($corners, 0), array_column($corners, 1));
        if (null !== $outline && (\count($corners) < 3 || abs($outline->area()) < CoreEnclosure::LEAST_MM2)) {
            throw UnreadableDocument::outOfRange($values->at('line'), 'three corners or more, round something');
        }
    }

    public function movedBy(Motion $motion): array
    {
        return '' === $this->line ? [] : [
            'line' => Places::mapped($this->line, static fn (Point $p, float $rise): array => [$motion->of($p), $motion->rise($rise)]),
        ];
    }

    public function storey(): Uuid
    {
        return $this->storey;
    }

    public function hasOutline(): bool
    {
        return '' !== $this->line;
    }

    /** @param list<string> $rooms that name it, by id */
    public function ofPlan(array $rooms): CoreEnclosure
    {
        $corners = Places::read($this->line, 'line');

        return new CoreEnclosure(
            $this->id->toRfc4122(),
            $this->storey->toRfc4122(),
            $this->fireClass->toRfc4122(),
            $rooms,
            [] === $corners ? null : new Contour(array_column($corners, 0), array_column($corners, 1)),
        );
    }
}
