<?php

declare(strict_types=1);

namespace Plinth\Server\Meter;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Units\LengthParser;
use Plinth\Core\Units\LengthUnit;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Http\Write;
use Plinth\Server\Project\ProjectAccess;
use Psr\Clock\ClockInterface;
use Symfony\Component\HttpFoundation\JsonResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;

/** Takes readings of a distance meter, and tells the latest one to whoever waits for a figure. */
#[Route('/api/meter')]
final readonly class MeterController
{
    /** s: an older reading was meant for something else */
    private const FRESH = 60;

    public function __construct(private ProjectAccess $access, private EntityManagerInterface $entities, private ClockInterface $clock)
    {
    }

    #[Write]
    #[Route('', methods: ['POST'])]
    public function send(Request $request): Response
    {
        $body = JsonValue::parse($request->getContent())->object(['id', 'text']);
        $text = $body->get('text');
        if (LengthParser::parse($text->text(40), LengthUnit::Metre)->mm <= 0.0) {
            throw Refusal::invalid('length-not-positive', 'A meter reads more than zero.', 'text');
        }
        $id = RowValues::uuid($body->get('id'));
        $reading = $this->entities->find(Reading::class, $id);
        if (null === $reading) {
            $reading = new Reading($id, $this->access->user()->id(), $text->text(40), $this->clock->now());
            $this->entities->persist($reading);
            $this->entities->flush();
        } elseif (!$reading->isOf($this->access->user()->id())) {
            throw Refusal::conflict('id-taken', 'This id is in use already: make a new one.', 'id');
        }

        return new JsonResponse(['reading' => $reading->describe()]);
    }

    #[Route('', methods: ['GET'])]
    public function latest(): Response
    {
        $since = $this->clock->now()->modify('-'.self::FRESH.' seconds');
        $found = $this->entities->createQueryBuilder()->select('r')->from(Reading::class, 'r')
            ->where('r.user = :user')->andWhere('r.at >= :since')
            ->setParameter('user', $this->access->user()->id(), 'uuid')->setParameter('since', $since)
            ->orderBy('r.id', 'DESC')->setMaxResults(1)->getQuery()->getOneOrNullResult();

        return new JsonResponse(['reading' => $found instanceof Reading ? $found->describe() : null]);
    }
}
