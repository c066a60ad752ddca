<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Fitting\Along;
use Plinth\Core\Fitting\Ends;
use Plinth\Core\Fitting\KnownLength as CoreKnownLength;
use Plinth\Core\Fitting\Standing;
use Plinth\Core\Fitting\StandOff;
use Plinth\Core\Units\Length;
use Plinth\Core\Units\LengthParser;
use Plinth\Core\Units\LengthUnit;
use Plinth\Core\Units\Module;
use Plinth\Core\Units\SwappedDigits;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Http\Refusal;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A true distance between two picks, with the text as typed. */
#[Kind('knownLength')]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'drawing'])]
class KnownLength extends ProjectRow implements Statement
{
    use BetweenPicks;

    #[ORM\Column(length: 120)]
    private string $text = '';

    /** unit that a bare number in the text had when it was typed */
    #[ORM\Column(length: 4)]
    private LengthUnit $unit = LengthUnit::Millimetre;

    /** what the text says; follows from it */
    #[ORM\Column]
    private float $mm = 0.0;

    #[ORM\Column]
    private float $stepMm = 0.0;

    #[ORM\Column(length: 24)]
    private Standing $standing = Standing::Figured;

    #[ORM\Column(length: 12)]
    private Ends $ends = Ends::OuterFace;

    /** what the picks were put on, where that differs from what the figure runs between */
    #[ORM\Column(length: 12)]
    private Ends $picked = Ends::OuterFace;

    /** thickness of the walls at its ends, mm: matters where the two differ */
    #[ORM\Column(name: 'wall_mm')]
    private float $wall = 0.0;

    #[ORM\Column(length: 10)]
    private Along $along = Along::Straight;

    /** for a distance across: a second pick on the line through a */
    #[Refers(Pick::class)]
    #[ORM\Column(type: UuidType::NAME, nullable: true)]
    private ?Uuid $c = null;

    /** it serves every drawing of its page */
    #[ORM\Column]
    private bool $wholePage = false;

    /** module that counts in the text were typed with, mm */
    #[ORM\Column(nullable: true)]
    private ?float $course = null;

    #[ORM\Column(nullable: true)]
    private ?float $unitLength = null;

    #[ORM\Column]
    private float $joint = 0.0;

    /** how far it stands before the wall plane of a photograph, and from how far away that was taken; mm */
    #[ORM\Column(nullable: true)]
    private ?float $standOff = null;

    #[ORM\Column(nullable: true)]
    private ?float $seenFrom = null;

    #[ORM\Column]
    private bool $heldOut = false;

    public function values(): array
    {
        return [
            'drawing' => $this->drawing->toRfc4122(), 'a' => $this->a->toRfc4122(), 'b' => $this->b->toRfc4122(),
            'text' => $this->text, 'unit' => $this->unit->value, 'mm' => $this->mm, 'stepMm' => $this->stepMm,
            'standing' => $this->standing->value, 'ends' => $this->ends->value, 'picked' => $this->picked->value, 'wall' => $this->wall, 'along' => $this->along->value, 'c' => $this->c?->toRfc4122(),
            'heldOut' => $this->heldOut, 'wholePage' => $this->wholePage, 'course' => $this->course, 'unitLength' => $this->unitLength, 'joint' => $this->joint, 'standOff' => $this->standOff, 'seenFrom' => $this->seenFrom,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->takePicks($values);
        $this->text = $values->text('text');
        $this->unit = $values->choice('unit', LengthUnit::class);
        $this->course = $values->optionalPositive('course');
        $this->unitLength = $values->optionalPositive('unitLength');
        $this->joint = $values->optionalNumber('joint') ?? 0.0;
        $length = LengthParser::parse($this->text, $this->unit, new Module($this->course, $this->unitLength, $this->joint));
        if ($length->mm <= 0.0) {
            throw Refusal::invalid(
                'length-not-positive',
                \sprintf('A known length must be longer than zero, and “%s” is not.', $this->text),
                $values->at('text'),
            );
        }
        $this->mm = $length->mm;
        $this->stepMm = $length->stepMm;
        $this->standing = $values->choice('standing', Standing::class);
        $this->ends = $values->choice('ends', Ends::class);
        $this->picked = $values->choiceOr('picked', $this->ends);
        $this->wall = $values->optionalNumber('wall') ?? 0.0;
        $this->along = $values->choice('along', Along::class);
        $this->c = $values->optionalId('c');
        if ((Along::Across === $this->along) !== (null !== $this->c)) {
            throw Refusal::invalid('missing-pick', 'A distance across, and only that, has a second pick on its line.', $values->at('c'));
        }
        $this->standOff = $values->optionalNumber('standOff');
        $this->seenFrom = $values->optionalPositive('seenFrom');
        if (null !== $this->standOff && null === $this->seenFrom) {
            throw Refusal::invalid(
                'no-distance',
                'What stands before the wall reads too large by its nearness: say also from how far away the photograph was taken.',
                $values->at('seenFrom'),
            );
        }
        $this->nearness();
        $this->wholePage = $values->flag('wholePage');
        $this->heldOut = $values->flag('heldOut');
    }

    /** what the length seems to be on the wall plane over what it is */
    private function nearness(): float
    {
        return null === $this->standOff || null === $this->seenFrom ? 1.0 : (new StandOff($this->standOff, $this->seenFrom))->factor();
    }

    public function length(): Length
    {
        return Length::ofMillimetres($this->mm, $this->stepMm);
    }

    /** @return list<string> ids of the picks it uses */
    public function picks(): array
    {
        return array_map(
            static fn (Uuid $id): string => $id->toRfc4122(),
            null === $this->c ? [$this->a, $this->b] : [$this->a, $this->b, $this->c],
        );
    }

    public function isOfWholePage(): bool
    {
        return $this->wholePage;
    }

    public function wall(): float
    {
        return $this->wall;
    }

    /** @return list<float> mm, what it would say with two of its digits the other way round */
    public function swappedMm(): array
    {
        return SwappedDigits::of($this->text, $this->unit);
    }

    /** what one joint or unit more adds, where the figure is a count; mm */
    public function unitMm(): ?float
    {
        return Standing::Module === $this->standing ? $this->course ?? $this->unitLength : null;
    }

    /**
     * @param float $scale denominator of the drawing's scale, for the draughtsman's share of the error
     * @param float $drafting how large his error is beside the usual one
     */
    public function toCore(float $scale, float $drafting): CoreKnownLength
    {
        return new CoreKnownLength(
            $this->id->toRfc4122(), $this->a->toRfc4122(), $this->b->toRfc4122(), $this->mm * $this->nearness(), $this->standing->sigmaMm(
                $this->length(),
                $scale,
                $drafting,
            ), $this->along, $this->heldOut, $this->c?->toRfc4122(),
            $this->ends->allowanceMm($this->picked, $this->wall),
        );
    }
}
