<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Units\AreaUnit;
use Plinth\Core\Units\DisplayUnit;
use Plinth\Core\Units\LengthUnit;
use Plinth\Server\Account\User;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Revised;
use Plinth\Server\Change\RowValues;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

#[Kind('project', isRemoved: false)]
#[ORM\Entity]
#[ORM\Index(fields: ['owner'])]
class Project extends ProjectRow implements Revised
{
    public const FOLLOWS = ['owner', 'head', 'binned'];

    #[ORM\Column(length: 120)]
    private string $name = '';

    #[ORM\Column(length: 20)]
    private Purpose $purpose = Purpose::Planning;

    /** unit that a bare number takes */
    #[ORM\Column(length: 4)]
    private LengthUnit $unit = LengthUnit::Millimetre;

    /** in what sizes are shown and handed over */
    #[ORM\Column(length: 8)]
    private DisplayUnit $shows = DisplayUnit::Millimetre;

    #[ORM\Column(length: 3)]
    private AreaUnit $areas = AreaUnit::SquareMetre;

    /** the building's module: gauge of a course upward, unit length along, the joint inside either; mm */
    #[ORM\Column(nullable: true)]
    private ?float $course = null;

    #[ORM\Column(nullable: true)]
    private ?float $unitLength = null;

    #[ORM\Column]
    private float $joint = 10.0;

    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $owner;

    /** number of the project's latest change */
    #[ORM\Column]
    private int $head = 0;

    /** when it was put into the bin */
    #[ORM\Column(nullable: true)]
    private ?\DateTimeImmutable $binned = null;

    public static function of(Uuid $id, User $owner): self
    {
        $project = new self($id, $id);
        $project->owner = $owner->id();

        return $project;
    }

    public function values(): array
    {
        return [
            'name' => $this->name,
            'purpose' => $this->purpose->value,
            'unit' => $this->unit->value,
            'shows' => $this->shows->value,
            'areas' => $this->areas->value,
            'course' => $this->course,
            'unitLength' => $this->unitLength,
            'joint' => $this->joint,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->name = $values->name('name');
        $this->purpose = $values->choice('purpose', Purpose::class);
        $this->unit = $values->choice('unit', LengthUnit::class);
        $this->shows = $values->choiceOr('shows', DisplayUnit::usualFor($this->unit));
        $this->areas = $values->choiceOr('areas', AreaUnit::usualFor($this->shows));
        $this->course = $values->optionalPositive('course');
        $this->unitLength = $values->optionalPositive('unitLength');
        $this->joint = $values->optionalNumber('joint') ?? 10.0;
    }

    public function owner(): Uuid
    {
        return $this->owner;
    }

    public function belongsTo(User $user): bool
    {
        return $this->owner->equals($user->id());
    }

    public function binned(): ?\DateTimeImmutable
    {
        return $this->binned;
    }

    public function bin(?\DateTimeImmutable $at): void
    {
        $this->binned = $at;
    }

    public function name(): string
    {
        return $this->name;
    }

    public function unit(): LengthUnit
    {
        return $this->unit;
    }

    public function areas(): AreaUnit
    {
        return $this->areas;
    }

    public function shows(): DisplayUnit
    {
        return $this->shows;
    }

    public function head(): int
    {
        return $this->head;
    }

    public function advance(): int
    {
        return ++$this->head;
    }
}
