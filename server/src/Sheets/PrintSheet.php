<?php

declare(strict_types=1);

namespace Plinth\Server\Sheets;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Core\Sheets\Model\PrintSheet as CoreSheet;
use Plinth\Core\Sheets\Model\SheetView as CoreView;
use Plinth\Server\Change\Kind;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowValues;

/** A print sheet: its paper, its place among the others, and what its title block says of it alone. */
#[Kind('printSheet')]
#[ORM\Entity]
class PrintSheet extends ProjectRow
{
    /** mm; a strip of A0 is some 5 m long */
    private const SIDES_MM = [100.0, 5000.0];

    /** sheets follow each other by it */
    #[ORM\Column(name: 'place_in_order')]
    private int $order = 0;

    /** mm */
    #[ORM\Column]
    private float $width = 420.0;

    /** mm */
    #[ORM\Column]
    private float $height = 297.0;

    /** what it shows: the supplementary title */
    #[ORM\Column(length: 120)]
    private string $part = '';

    /** identification number */
    #[ORM\Column(length: 40)]
    private string $number = '';

    #[ORM\Column(length: 120)]
    private string $owner = '';

    #[ORM\Column(length: 120)]
    private string $creator = '';

    #[ORM\Column(length: 120)]
    private string $approved = '';

    /** of issue, as it is written */
    #[ORM\Column(length: 40)]
    private string $date = '';

    public function values(): array
    {
        return [
            'order' => $this->order, 'width' => $this->width, 'height' => $this->height, 'part' => $this->part, 'number' => $this->number,
            'owner' => $this->owner, 'creator' => $this->creator, 'approved' => $this->approved, 'date' => $this->date,
        ];
    }

    public function take(RowValues $values): void
    {
        $this->order = $values->count('order');
        [$this->width, $this->height] = [$values->positive('width'), $values->positive('height')];
        foreach (['width' => $this->width, 'height' => $this->height] as $key => $mm) {
            if ($mm < self::SIDES_MM[0] || $mm > self::SIDES_MM[1]) {
                throw UnreadableDocument::outOfRange($values->at($key), 'between 100 and 5 000 mm');
            }
        }
        [$this->part, $this->number] = [$values->text('part'), $values->text('number', 40)];
        [$this->owner, $this->creator] = [$values->text('owner'), $values->text('creator')];
        [$this->approved, $this->date] = [$values->text('approved'), $values->text('date', 40)];
    }

    /** @param list<CoreView> $views */
    public function withViews(array $views): CoreSheet
    {
        return new CoreSheet(
            $this->id()->toRfc4122(),
            $this->width,
            $this->height,
            $views,
            $this->part,
            $this->number,
            $this->owner,
            $this->creator,
            $this->approved,
            $this->date,
        );
    }
}
