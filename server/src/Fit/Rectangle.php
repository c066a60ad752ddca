<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Fitting\Rectangle as CoreRectangle;
use Plinth\Core\Fitting\Standing;
use Plinth\Core\Units\Length;
use Plinth\Core\Units\LengthParser;
use Plinth\Core\Units\LengthUnit;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Source\Drawing;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A room of known width and depth by its four corners, with both texts as typed. */
#[Kind('rectangle')]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'drawing'])]
class Rectangle extends ProjectRow implements Statement
{
    #[Refers(Drawing::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $drawing;

    #[Refers(Pick::class)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $a;

    #[Refers(Pick::class)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $b;

    #[Refers(Pick::class)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $c;

    #[Refers(Pick::class)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $d;

    /** from a to b */
    #[ORM\Column(length: 120)]
    private string $width = '';

    /** from b to c */
    #[ORM\Column(length: 120)]
    private string $depth = '';

    #[ORM\Column(length: 4)]
    private LengthUnit $unit = LengthUnit::Millimetre;

    #[ORM\Column(length: 24)]
    private Standing $standing = Standing::Figured;

    public function values(): array
    {
        return [
            'drawing' => $this->drawing->toRfc4122(), 'a' => $this->a->toRfc4122(), 'b' => $this->b->toRfc4122(), 'c' => $this->c->toRfc4122(), 'd' => $this->d->toRfc4122(),
            'width' => $this->width, 'depth' => $this->depth, 'unit' => $this->unit->value, 'standing' => $this->standing->value,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->drawing = $values->id('drawing');
        [$this->a, $this->b, $this->c, $this->d] = [$values->id('a'), $values->id('b'), $values->id('c'), $values->id('d')];
        if (4 !== \count(array_unique(array_map(strval(...), [$this->a, $this->b, $this->c, $this->d])))) {
            throw Refusal::invalid(
                'coincident-picks',
                'Two corners are the same pick: pick four corners in order round the room.',
                $values->at('a'),
            );
        }
        $this->width = $values->text('width');
        $this->depth = $values->text('depth');
        $this->unit = $values->choice('unit', LengthUnit::class);
        $this->standing = $values->choice('standing', Standing::class);
        foreach (['width' => $this->width, 'depth' => $this->depth] as $side => $text) {
            if (LengthParser::parse($text, $this->unit)->mm <= 0.0) {
                throw Refusal::invalid(
                    'length-not-positive',
                    \sprintf('A side must be longer than zero, and “%s” is not.', $text),
                    $values->at($side),
                );
            }
        }
    }

    public function drawing(): Uuid
    {
        return $this->drawing;
    }

    /**
     * @param float $scale denominator of the drawing's scale, for the draughtsman's share of the error
     * @param float $drafting how large his error is beside the usual one
     */
    public function toCore(float $scale, float $drafting): CoreRectangle
    {
        $width = LengthParser::parse($this->width, $this->unit);
        $depth = LengthParser::parse($this->depth, $this->unit);
        $longer = Length::ofMillimetres(max($width->mm, $depth->mm), max($width->stepMm, $depth->stepMm));

        return new CoreRectangle(
            $this->id->toRfc4122(),
            array_map(static fn (Uuid $id): string => $id->toRfc4122(), [$this->a, $this->b, $this->c, $this->d]),
            $width->mm,
            $depth->mm,
            $this->standing->sigmaMm($longer, $scale, $drafting),
        );
    }
}
