<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Source\Drawing;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** What is stated about a drawing between two of its picks. */
trait BetweenPicks
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

    private function takePicks(RowValues $values): void
    {
        $this->drawing = $values->id('drawing');
        $this->a = $values->id('a');
        $this->b = $values->id('b');
        if ($this->a->equals($this->b)) {
            throw Refusal::invalid('coincident-picks', 'Both ends are the same pick: pick two ends.', $values->at('b'));
        }
    }

    public function drawing(): Uuid
    {
        return $this->drawing;
    }

    public function a(): Uuid
    {
        return $this->a;
    }

    public function b(): Uuid
    {
        return $this->b;
    }
}
