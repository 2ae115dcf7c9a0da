/** Words of trades and places that many merchants have in their names, without case and accents: they tell nobody from another. */
export const GENERAL_WORDS: ReadonlySet<string> = new Set(
  `bakery bar bistro books bookshop boutique brasserie cab cabs cafe cafeteria canteen center centre coffee company deli diner
  express ferries ferry food fuel garage grill grocery group guesthouse hire hostel hotel house inn international kiosk lodge
  lounge mart market mini motel museum parking pharmacy pizza pizzeria press print printers printing pub rail railway rental
  restaurant rooms service services shop shops shuttle station stationery stationers store stores super supermarket supplies
  supply taxi taxis tea theatre tour tours train trains travel
  albergo alimentari apotek apotheke autobus bahn bahnhof backerei bensinstasjon boulangerie butikk bokhandel buchhandlung
  caffe cervejaria estacion farmacia ferroviaria gare gasthaus gasthof gastro hospedaje hostal hotell imprenta
  imprimerie kafe kafeteria konditorei kro libreria librairie livraria lekarna metro osteria panaderia papeteria papeterie
  papelaria pastelaria patisserie pension pharmacie pousada ristorante restaurace restaurang restaurante stazione supermercado
  supermercato tabac tabaccheria tankstelle tienda trafik tipografia trattoria trykkeri vertshus wirtshaus`.split(
    /\s+/,
  ),
);
