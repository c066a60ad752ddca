<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Plan\Derivation\RoomsTable;
use Plinth\Core\Plan\Model\ListedRoom as CoreListedRoom;
use Plinth\Core\Units\LengthUnit;
use Plinth\Server\Http\Needs;
use Plinth\Server\Http\Who;
use Plinth\Server\Project\ProjectAccess;
use Plinth\Server\Project\Storey;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Symfony\Component\Uid\Uuid;

/** A drawing's own rooms table: read from text, and held against what is traced. */
final readonly class RoomsTableController
{
    private const LONGEST = 60_000;

    public function __construct(private ProjectAccess $access, private EntityManagerInterface $entities, private DerivedShapes $shapes)
    {
    }

    #[Needs(Who::SignedIn)]
    #[Route('/api/rooms-table', methods: ['POST'])]
    public function read(Request $request): Response
    {
        $body = JsonValue::parse($request->getContent())->object(['text', 'unit']);

        return new JsonResponse([
            'rooms' => array_map(
                self::told(...),
                RoomsTable::read($body->get('text')->text(self::LONGEST), $body->get('unit')->choice(LengthUnit::class)),
            ),
        ]);
    }

    #[Needs(Who::Reader)]
    #[Route('/api/projects/{project}/storeys/{id}/rooms-table', methods: ['GET'])]
    public function compare(Uuid $project, Uuid $id): Response
    {
        $storey = $this->access->row(Storey::class, $project, $id);
        $rows = $this->entities->getRepository(ListedRoom::class)->findBy(
            ['project' => $storey->project(), 'storey' => $storey->id()],
            ['id' => 'ASC'],
        );
        $listed = array_map(static fn (ListedRoom $r): CoreListedRoom => $r->toCore(), $rows);
        $ids = new \SplObjectStorage();
        foreach ($listed as $i => $room) {
            $ids[$room] = $rows[$i]->id()->toRfc4122();
        }

        return new JsonResponse(['rows' => array_map(static fn (array $row): array => [
            'listed' => null === $row['listed'] ? null : $ids[$row['listed']],
            'region' => $row['traced']?->key,
            'room' => $row['traced']?->room,
            'by' => $row['by'],
            'areaOffM2' => $row['areaOffM2'], 'widthOffMm' => $row['widthOffMm'], 'depthOffMm' => $row['depthOffMm'],
        ], RoomsTable::compare($listed, $this->shapes->rooms($storey->key())))]);
    }

    /** @return array{number: string, name: string, width: float|null, depth: float|null, areaM2: float|null} */
    private static function told(CoreListedRoom $room): array
    {
        return [
            'number' => $room->number,
            'name' => $room->name,
            'width' => $room->width,
            'depth' => $room->depth,
            'areaM2' => $room->areaM2,
        ];
    }
}
