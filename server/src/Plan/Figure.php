<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Plan\Model\Line;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Project\DrawnOnStorey;
use Plinth\Server\Project\OnStorey;
use Plinth\Server\Project\Storey;
use Plinth\Server\Source\Drawing;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/**
 * A figure of the drawing between faces of two walls, along one, or of an opening's width; what was traced there, and what was decided
 * where they differ.
 */
#[Kind('figure')]
#[ORM\Entity]
#[ORM\Table(name: 'figure')]
#[ORM\Index(fields: ['project', 'storey'])]
#[ORM\Index(fields: ['project', 'drawing'])]
#[ORM\Index(fields: ['project', 'a'])]
#[ORM\Index(fields: ['project', 'b'])]
#[ORM\Index(fields: ['project', 'opening'])]
class Figure extends ProjectRow implements OnStorey, DrawnOnStorey
{
    #[Refers(Storey::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $storey;

    #[Refers(Drawing::class, then: WhenGone::LetsGo)]
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    private ?Uuid $drawing = null;

    #[Refers(Wall::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $a;

    #[ORM\Column(length: 6)]
    private Line $aSide = Line::Left;

    #[Refers(Wall::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $b;

    #[ORM\Column(length: 6)]
    private Line $bSide = Line::Right;

    /** the opening whose width it tells; where there is none and both walls are one, it runs along that wall */
    #[Refers(Opening::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    private ?Uuid $opening = null;

    /** as typed */
    #[ORM\Column(length: 60)]
    private string $text = '';

    #[ORM\Column]
    private float $mm = 100.0;

    /** by the ink, before anything was decided */
    #[ORM\Column(nullable: true)]
    private ?float $tracedMm = null;

    /** as measured on site, as typed */
    #[ORM\Column(length: 60)]
    private string $siteText = '';

    #[ORM\Column(nullable: true)]
    private ?float $siteMm = null;

    #[ORM\Column(length: 6)]
    private Decided $decided = Decided::Open;

    /** why */
    #[ORM\Column(length: 400)]
    private string $reason = '';

    public static function onStorey(): string
    {
        return 'r.storey = :storey';
    }

    public function values(): array
    {
        return [
            'storey' => $this->storey->toRfc4122(), 'drawing' => $this->drawing?->toRfc4122(), 'a' => $this->a->toRfc4122(), 'aSide' => $this->aSide->value, 'b' => $this->b->toRfc4122(), 'bSide' => $this->bSide->value, 'opening' => $this->opening?->toRfc4122(), 'text' => $this->text, 'mm' => $this->mm, 'tracedMm' => $this->tracedMm, 'siteText' => $this->siteText, 'siteMm' => $this->siteMm, 'decided' => $this->decided->value, 'reason' => $this->reason,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->storey = $values->id('storey');
        $this->drawing = $values->optionalId('drawing');
        $this->a = $values->id('a');
        $this->aSide = $values->choice('aSide', Line::class);
        $this->b = $values->id('b');
        $this->bSide = $values->choice('bSide', Line::class);
        $this->opening = $values->optionalId('opening');
        $this->text = $values->name('text', 60);
        $this->mm = $values->positive('mm');
        $this->tracedMm = $values->optionalPositive('tracedMm');
        $this->siteText = $values->text('siteText', 60);
        $this->siteMm = $values->optionalPositive('siteMm');
        $this->decided = $values->choice('decided', Decided::class);
        $this->reason = $values->text('reason', 400);
    }
}
