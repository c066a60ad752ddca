<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Core\Plan\Model\DoorExit;
use Plinth\Core\Plan\Model\OpeningHead;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Project\OnStorey;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A door, window or plain opening; `offset` runs along the centre line from the wall's start to the near edge, mm. */
#[Kind('opening')]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'wall'])]
class Opening extends ProjectRow implements OnStorey
{
    #[Refers(Wall::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $wall;

    #[ORM\Column(length: 8)]
    private OpeningKind $kind = OpeningKind::Door;

    #[ORM\Column(name: 'offset_mm')]
    private float $offset = 0.0;

    #[ORM\Column]
    private float $width = 0.0;

    #[ORM\Column]
    private float $sill = 0.0;

    #[ORM\Column(nullable: true)]
    private ?float $height = null;

    #[ORM\Column(length: 5)]
    private Hand $hand = Hand::Left;

    #[ORM\Column(length: 5)]
    private Hand $swing = Hand::Left;

    #[ORM\Column(length: 7, options: ['default' => 'single'])]
    private Leaf $leaf = Leaf::Single;

    #[ORM\Column(length: 10, options: ['default' => 'level'])]
    private OpeningHead $head = OpeningHead::Level;

    /** mm of a head that is part of a circle over its springing */
    #[ORM\Column(options: ['default' => 0])]
    private float $rise = 0.0;

    #[ORM\Column(name: 'exit_kind', length: 7, options: ['default' => 'none'])]
    private DoorExit $exit = DoorExit::None;

    /** class of fire resistance as it was typed */
    #[ORM\Column(length: 40, options: ['default' => ''])]
    private string $rated = '';

    /** D01, W01 … */
    #[ORM\Column(length: 12)]
    private string $number = '';

    public static function onStorey(): string
    {
        return 'r.wall IN (SELECT w.id FROM '.Wall::class.' w WHERE w.project = r.project AND w.storey = :storey)';
    }

    public function values(): array
    {
        return [
            'wall' => $this->wall->toRfc4122(), 'kind' => $this->kind->value, 'offset' => $this->offset, 'width' => $this->width,
            'sill' => $this->sill, 'height' => $this->height, 'hand' => $this->hand->value, 'swing' => $this->swing->value, 'number' => $this->number, 'leaf' => $this->leaf->value,
            'head' => $this->head->value, 'rise' => $this->rise, 'exit' => $this->exit->value, 'rated' => $this->rated,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->wall = $values->id('wall');
        $this->kind = $values->choice('kind', OpeningKind::class);
        $this->offset = $values->number('offset');
        $this->width = $values->positive('width');
        $this->sill = $values->notNegative('sill');
        $this->height = $values->optionalPositive('height');
        $this->hand = $values->choice('hand', Hand::class);
        $this->swing = $values->choice('swing', Hand::class);
        $this->number = $values->text('number', 12);
        $this->leaf = $values->choiceOr('leaf', Leaf::Single);
        $this->head = $values->choiceOr('head', OpeningHead::Level);
        $this->rise = $values->optionalNumber('rise') ?? 0.0;
        $this->exit = $values->choiceOr('exit', DoorExit::None);
        $this->rated = trim($values->text('rated', 40));
        if ($this->rise < 0.0) {
            throw UnreadableDocument::outOfRange($values->at('rise'), 'zero or more');
        }
    }

    public function wall(): Uuid
    {
        return $this->wall;
    }

    public function width(): float
    {
        return $this->width;
    }

    public function offset(): float
    {
        return $this->offset;
    }
}
