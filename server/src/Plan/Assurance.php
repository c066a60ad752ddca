<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Project\OnStorey;
use Plinth\Server\Project\Storey;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** Somebody says of what is unusual that it is so: of that thing it is not said again. */
#[Kind('assurance')]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'storey'])]
class Assurance extends ProjectRow implements OnStorey
{
    #[Refers(Storey::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $storey;

    /** what was doubted */
    #[ORM\Column(length: 40)]
    private string $code = '';

    /** the id of the wall, opening, room or storey that it was doubted of: a mark, which nothing follows, be it there any more or not */
    #[ORM\Column(length: 36)]
    private string $thing = '';

    public static function onStorey(): string
    {
        return 'r.storey = :storey';
    }

    public function values(): array
    {
        return ['storey' => $this->storey->toRfc4122(), 'code' => $this->code, 'thing' => $this->thing];
    }

    public function take(RowValues $values): void
    {
        $this->storey = $values->id('storey');
        $this->code = $values->name('code', 40);
        $this->thing = $values->id('thing')->toRfc4122();
    }
}
