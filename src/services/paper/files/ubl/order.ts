/**
 * What stands in an element of a UBL 2.1 Quotation, in the order of its schema (OASIS UBL 2.1, xsd/maindoc and
 * xsd/common), as far as it is used.
 */
const party = [
  'cac:PartyIdentification',
  'cac:PartyName',
  'cac:PostalAddress',
  'cac:PartyTaxScheme',
  'cac:PartyLegalEntity',
  'cac:Contact',
] as const;
const address = ['cbc:StreetName', 'cbc:CityName', 'cbc:PostalZone', 'cac:Country'] as const;
const taxCategory = ['cbc:ID', 'cbc:Percent', 'cac:TaxScheme'] as const;
const allowance = [
  'cbc:ChargeIndicator',
  'cbc:AllowanceChargeReasonCode',
  'cbc:AllowanceChargeReason',
  'cbc:Amount',
  'cbc:BaseAmount',
] as const;

/** Children by element. */
export const order: Readonly<Record<string, readonly string[]>> = {
  Quotation: [
    'cbc:UBLVersionID',
    'cbc:ID',
    'cbc:IssueDate',
    'cbc:Note',
    'cbc:PricingCurrencyCode',
    'cbc:LineCountNumeric',
    'cac:ValidityPeriod',
    'cac:SellerSupplierParty',
    'cac:BuyerCustomerParty',
    'cac:Delivery',
    'cac:TransactionConditions',
    'cac:AllowanceCharge',
    'cac:TaxTotal',
    'cac:QuotedMonetaryTotal',
    'cac:QuotationLine',
  ],
  'cac:ValidityPeriod': ['cbc:EndDate'],
  'cac:PromisedDeliveryPeriod': ['cbc:EndDate'],
  'cac:SellerSupplierParty': ['cac:Party'],
  'cac:BuyerCustomerParty': ['cac:Party'],
  'cac:Party': party,
  'cac:PartyIdentification': ['cbc:ID'],
  'cac:PartyName': ['cbc:Name'],
  'cac:PostalAddress': address,
  'cac:Address': address,
  'cac:Country': ['cbc:IdentificationCode'],
  'cac:PartyTaxScheme': ['cbc:CompanyID', 'cac:TaxScheme'],
  'cac:TaxScheme': ['cbc:ID'],
  'cac:PartyLegalEntity': ['cbc:RegistrationName'],
  'cac:Contact': ['cbc:Name', 'cbc:ElectronicMail'],
  'cac:Delivery': ['cac:DeliveryLocation', 'cac:PromisedDeliveryPeriod'],
  'cac:DeliveryLocation': ['cac:Address'],
  'cac:TransactionConditions': ['cbc:Description'],
  'cac:AllowanceCharge': allowance,
  'cac:TaxTotal': ['cbc:TaxAmount', 'cac:TaxSubtotal'],
  'cac:TaxSubtotal': ['cbc:TaxableAmount', 'cbc:TaxAmount', 'cac:TaxCategory'],
  'cac:TaxCategory': taxCategory,
  'cac:ClassifiedTaxCategory': taxCategory,
  'cac:QuotedMonetaryTotal': [
    'cbc:LineExtensionAmount',
    'cbc:TaxExclusiveAmount',
    'cbc:TaxInclusiveAmount',
    'cbc:AllowanceTotalAmount',
    'cbc:PayableAmount',
  ],
  'cac:QuotationLine': ['cbc:ID', 'cac:LineItem'],
  'cac:LineItem': [
    'cbc:ID',
    'cbc:Quantity',
    'cbc:LineExtensionAmount',
    'cac:AllowanceCharge',
    'cac:Price',
    'cac:Item',
  ],
  'cac:Price': ['cbc:PriceAmount', 'cbc:BaseQuantity'],
  'cac:Item': [
    'cbc:Name',
    'cac:SellersItemIdentification',
    'cac:ClassifiedTaxCategory',
    'cac:AdditionalItemProperty',
  ],
  'cac:SellersItemIdentification': ['cbc:ID'],
  'cac:AdditionalItemProperty': ['cbc:Name', 'cbc:Value'],
};

/** What stands in an element, in its order; nothing where it is not used. */
export const orderOf = (element: string): readonly string[] => order[element] ?? [];
