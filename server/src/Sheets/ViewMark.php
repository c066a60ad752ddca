<?php

declare(strict_types=1);

namespace Plinth\Server\Sheets;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Sheets\Model\ViewMark as CoreMark;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\Refers;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\WhenGone;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** A dimension of a view that somebody has moved or left out: known by what it runs between, whatever becomes of the plan. */
#[Kind('viewMark')]
#[ORM\Entity]
#[ORM\Index(fields: ['project', 'view'])]
class ViewMark extends ProjectRow
{
    #[Refers(SheetView::class, then: WhenGone::GoesAlong)]
    #[ORM\Column(type: UuidType::NAME)]
    private Uuid $view;

    /** which dimension or chain, as the sheet names it */
    #[ORM\Column(name: 'dimension', length: 80)]
    private string $of = '';

    /** mm of paper to the right, and down */
    #[ORM\Column]
    private float $dx = 0.0;

    #[ORM\Column]
    private float $dy = 0.0;

    #[ORM\Column(name: 'left_out')]
    private bool $hidden = false;

    public function values(): array
    {
        return ['view' => $this->view->toRfc4122(), 'of' => $this->of, 'dx' => $this->dx, 'dy' => $this->dy, 'hidden' => $this->hidden];
    }

    public function take(RowValues $values): void
    {
        $this->view = $values->id('view');
        $this->of = $values->name('of', 80);
        [$this->dx, $this->dy] = [$values->place('dx'), $values->place('dy')];
        $this->hidden = $values->flag('hidden');
    }

    public function view(): Uuid
    {
        return $this->view;
    }

    public function said(): CoreMark
    {
        return new CoreMark($this->of, $this->dx, $this->dy, $this->hidden);
    }
}
